package calc

import (
	"crypto/sha256"
	"encoding/json"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"hash/crc32"
	"maps"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"pinhole/core/practice"
)

// freeze writes the frozen answers anew: go test ./core/calc -run Frozen -freeze. The
// difference names what a change of the code changed, and is to be read.
var freeze = flag.Bool("freeze", false, "write testdata/frozen anew")

// frozenRequests is how many requests are drawn of each computation.
const frozenRequests = 24

// The answers to the worked cases, to every example and request that the tests ask, and to
// some drawn from them, of each computation by itself: a move of code changes none, a decision only those that
// hang on it. Only the start of a hash is kept of each, so that the file stays readable
// and a change is one line.
func TestFrozenAnswers(t *testing.T) {
	seeds := seedRequests(t)
	var lines []string
	ask := func(name string, n int, kind string, body []byte) {
		op, known := Named(name)
		if !known {
			t.Fatalf("no computation %q", name)
		}
		lines = append(lines, fmt.Sprintf("%s %s %d %s", name, kind, n, fingerprint(t, op, body)))
	}
	for _, name := range slices.Sorted(maps.Keys(seeds)) {
		for i, body := range seeds[name] {
			ask(name, i, "asked", body)
		}
	}
	for _, name := range slices.Sorted(maps.Keys(seeds)) {
		of := seeds[name]
		r := rand.New(rand.NewPCG(12, uint64(crc32.ChecksumIEEE([]byte(name)))))
		for i := range frozenRequests {
			ask(name, i, "drawn", drawFrom(t, r, of[r.IntN(len(of))], of))
		}
	}
	got := strings.Join(lines, "\n") + "\n"
	const file = "testdata/frozen/answers.txt"
	if *freeze {
		if err := os.WriteFile(file, []byte(got), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	want, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	if got == string(want) {
		return
	}
	changed := map[string]int{}
	was := strings.Split(string(want), "\n")
	for i, line := range lines {
		if i >= len(was) || was[i] != line {
			changed[strings.Fields(line)[0]]++
		}
	}
	t.Errorf("answers changed: %v; if that was decided, run with -freeze and read the difference", changed)
}

// fingerprint is the start of the hash of an answer, or of the refusal.
func fingerprint(t *testing.T, op Operation, body []byte) string {
	t.Helper()
	answer, err := op.Run(body)
	var text []byte
	if err != nil {
		text = []byte(err.Error())
	} else if text, err = json.Marshal(answer); err != nil {
		t.Fatalf("%s answers %s with what is no JSON: %v", op.Name, body, err)
	}
	var v any
	if json.Unmarshal(text, &v) == nil {
		text = []byte(marshal(t, rounded(v)))
	}
	return fmt.Sprintf("%x", sha256.Sum256(text))[:10]
}

// rounded keeps nine digits of every number, so that the order in which numbers are
// added is no difference.
func rounded(v any) any {
	switch v := v.(type) {
	case float64:
		if math.Abs(v) < 1e-9 {
			return 0.0
		}
		digits, err := strconv.ParseFloat(strconv.FormatFloat(v, 'g', 9, 64), 64)
		if err != nil {
			return v
		}
		return digits
	case []any:
		for i := range v {
			v[i] = rounded(v[i])
		}
	case map[string]any:
		for k := range v {
			v[k] = rounded(v[k])
		}
	}
	return v
}

// seedRequests are the requests of the worked cases, of the examples, and of the tests
// of whole days, by name.
func seedRequests(t *testing.T) map[string][][]byte {
	t.Helper()
	seeds := map[string][][]byte{}
	add := func(name, body string) { seeds[name] = append(seeds[name], []byte(body)) }
	for _, c := range workedCases(t) {
		add(c.Calc, string(c.Request))
	}
	file, err := parser.ParseFile(token.NewFileSet(), "example_test.go", nil, 0)
	if err != nil {
		t.Fatal(err)
	}
	ast.Inspect(file, func(n ast.Node) bool {
		call, ok := n.(*ast.CallExpr)
		if !ok || len(call.Args) < 2 {
			return true
		}
		if name, isName := call.Fun.(*ast.Ident); isName && name.Name == "show" {
			add(quoted(call.Args[0]), quoted(call.Args[1]))
		}
		return true
	})
	for _, op := range Operations() {
		add(op.Name, string(op.Example()))
	}
	add("window", trailer)
	add("outing", fmt.Sprintf(harvest, ""))
	add("outing", fmt.Sprintf(harvest, `,"anchor":{"time":"2031-09-20T12:00:00-01:00","ev100":13.9}`))
	add("card", field("2031-09-20T07:40:00-01:00", true, "", ""))
	add("card", field("2031-09-20T12:35:00-01:00", false, "", ""))
	for _, light := range []string{
		`{"kind":"meter","at":{"text":"f2 1/1250 iso50"}}`, `{"kind":"auto","at":{"shutter":"1/800","glass":["a"]}}`,
		`{"kind":"meter","at":{"text":"EV 14.9"},"low":{"text":"EV 12.2"}}`, `{"kind":"bias","at":{"bias":"+1","glass":["b"]}}`,
		`{"kind":"looks","looks":[{"stops":3,"saw":"bright"}]}`,
	} {
		for _, scene := range []string{`{}`,
			`{"activity":"walk","movement":{"speedMps":1.4,"distanceM":3},"lamps":{"mainsHz":50}}`,
			`{"activity":"helmet","movement":{"speedMps":12,"distanceM":1.5,"turnDegS":20},"school":"stabiliser-first"}`,
			`{"activity":"cruise","movement":{"speedMps":14,"distanceM":4},"motor":{"rpm":18000,"blades":3,"amplitudeDeg":0.03},"school":"automatic"}`} {
			add("shot", `{`+gear+`,"look":{"fps":"25","target":"180°"},"light":`+light+`,"scene":`+scene+`,"rates":["25","50"],`+
				`"profile":{"lens":{"widthPx":3840,"hfovDeg":115,"projection":"equidistant"},"stabiliser":"electronic","readoutS":0.014,"automatic":{"priority":"shutter"}}}`)
		}
	}
	for _, activity := range []string{"walk", "helmet", "cruise"} {
		add("stepped", `{`+gear+`,"look":{"fps":"25","target":"180°"},"light":{"kind":"meter","at":{"text":"EV 13.5"}},"scene":{"activity":"`+activity+`"},`+
			`"profile":{"lens":{"widthPx":3840,"hfovDeg":115,"projection":"equidistant"},"stabiliser":"electronic","readoutS":0.014}}`)
	}
	for i, kind := range practice.Kind("").Values() {
		add("question", fmt.Sprintf(`{"kind":%q,"grade":%d,"seed":%d}`, kind, 1+i%practice.Grades, 40+i))
	}
	for i, answer := range []string{"[0]", "[1]", "[0,1,2,3]"} {
		add("mark", fmt.Sprintf(`{"kind":%q,"grade":2,"seed":%d,"answer":%s}`, []practice.Kind{practice.Count, practice.Filter, practice.Order}[i], i, answer))
	}
	add("progress", `{"answers":[{"at":"2031-04-01T09:00:00Z","kind":"count","grade":1,"seed":1,"right":true,"seconds":4,"confidence":"sure"},`+
		`{"at":"2031-04-01T09:01:00Z","kind":"labels","grade":1,"seed":2,"right":false,"off":1,"seconds":9,"confidence":"guess"}],"guesses":[{"at":"2031-04-01T09:00:00Z","offStops":1.5}]}`)
	move := func(from int) string {
		var pairs, stops []string
		for i := range 24 {
			at := float64(from + i)
			pairs = append(pairs, fmt.Sprintf(`{"dxPx":%.3f,"dyPx":%.3f,"rollDeg":0,"zoom":0}`, 4*math.Sin(at*at/60), 3*math.Cos(at*at/45)))
			stops = append(stops, fmt.Sprintf("%.3f", math.Sin(at/7)/4))
		}
		return fmt.Sprintf(`{"fps":25,"pairs":[%s],"meanStops":[%s]}`, strings.Join(pairs, ","), strings.Join(stops, ","))
	}
	add("align", fmt.Sprintf(`{"first":%s,"second":%s}`, move(10), move(4)))
	for _, said := range []string{
		"gimbal f2 iso50-800 · f2 1/1250 iso50 · 25 fps 180° · walking, subject 1.4 m/s at 3 m · 4 8 16 32 CPL", "sunny, sun behind me > 60fps", "1/240 behind ND8 > 30fps",
		"helmet, auto 1/2000 > 30", "overcast, shade > 24 · 2 layers", "90000 lux > 25 fps · indoors 50 Hz", "EV 11.5 to 14.9 > 60 on 30", "f2.8 1/1600 iso100 > 30", "hello",
	} {
		add("ask", fmt.Sprintf(`{"line":%q}`, said))
	}
	add("say", `{"camera":"Row walker","titles":{"c":"CPL"},"look":{"fps":"25","target":"180°"},"scene":{"activity":"walk","movement":{"speedMps":1.4,"distanceM":3},"lamps":{"mainsHz":50}},`+
		`"choices":{"required":["c"],"maxLayers":2,"priority":"image"},"light":{"kind":"auto","at":{"shutter":"1/800","iso":"100"}}}`)
	add("coverage", `{`+gear+`,"looks":[{"fps":"25","target":"180°"},{"fps":"50","target":"1/100"}],"lowEv100":2,"highEv100":17,"columns":16,`+
		`"wanted":[{"id":"noon","fps":"25","target":"180°","lowEv100":13.5,"highEv100":15,"spreadStops":0.3},{"id":"dusk","fps":"25","target":"180°","lowEv100":7,"highEv100":7}]}`)
	add("light", `{"from":"2031-09-20T07:00:00-01:00","to":"2031-09-20T19:00:00-01:00","stepS":3600,"latDeg":38,"lonDeg":-20,"sky":"clear","plane":"vertical"}`)
	return seeds
}

func quoted(e ast.Expr) string {
	if l, ok := e.(*ast.BasicLit); ok {
		if s, err := strconv.Unquote(l.Value); err == nil {
			return s
		}
	}
	return ""
}

// drawFrom changes a third of a request's numbers by up to a half, and a few of its words
// for others that stand in the same field of a sibling.
func drawFrom(t *testing.T, r *rand.Rand, seed []byte, siblings [][]byte) []byte {
	t.Helper()
	words := map[string][]string{}
	for _, s := range siblings {
		gather(decoded(t, s), "", words)
	}
	return []byte(marshal(t, vary(r, decoded(t, seed), "", words)))
}

func decoded(t *testing.T, body []byte) any {
	t.Helper()
	var v any
	if err := json.Unmarshal(body, &v); err != nil {
		t.Fatalf("%s: %v", body, err)
	}
	return v
}

func gather(v any, key string, into map[string][]string) {
	switch v := v.(type) {
	case string:
		if !slices.Contains(into[key], v) {
			into[key] = append(into[key], v)
			slices.Sort(into[key])
		}
	case []any:
		for _, item := range v {
			gather(item, key, into)
		}
	case map[string]any:
		for k, item := range v {
			gather(item, k, into)
		}
	}
}

func vary(r *rand.Rand, v any, key string, words map[string][]string) any {
	switch v := v.(type) {
	case float64:
		if r.Float64() > 0.33 {
			return v
		}
		changed := v * (0.6 + 0.9*r.Float64())
		if v == math.Trunc(v) && math.Abs(v) >= 1 {
			return math.Round(changed)
		}
		return changed
	case string:
		if of := words[key]; r.Float64() < 0.15 && len(of) > 1 && !strings.HasSuffix(strings.ToLower(key), "id") {
			return of[r.IntN(len(of))]
		}
		return v
	case []any:
		for i := range v {
			v[i] = vary(r, v[i], key, words)
		}
	case map[string]any:
		for _, k := range slices.Sorted(maps.Keys(v)) {
			v[k] = vary(r, v[k], k, words)
		}
	}
	return v
}
