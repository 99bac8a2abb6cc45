package paper

import (
	"bytes"
	"testing"
	"time"
)

func TestTheTargetIsOnePage(t *testing.T) {
	var pdf bytes.Buffer
	if err := WriteTarget(&pdf, time.Date(2031, 9, 20, 8, 0, 0, 0, time.UTC)); err != nil {
		t.Fatal(err)
	}
	if n := bytes.Count(pdf.Bytes(), []byte("/Type /Page\n")); n != 1 {
		t.Errorf("the target has %d pages", n)
	}
}
