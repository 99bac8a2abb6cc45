// Image packs the Linux binaries into one OCI image of two platforms, from nothing: the binary, a
// folder for its data, and a user who may write that folder alone. It writes an image layout, as a
// folder and as the archive that container engines load.
//
//	image VERSION FOLDER BINARY-AMD64 BINARY-ARM64
package main

import (
	"archive/tar"
	"bytes"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"log"
	"os"
	"path/filepath"
	"time"

	v1 "github.com/google/go-containerregistry/pkg/v1"
	"github.com/google/go-containerregistry/pkg/v1/empty"
	"github.com/google/go-containerregistry/pkg/v1/layout"
	"github.com/google/go-containerregistry/pkg/v1/mutate"
	"github.com/google/go-containerregistry/pkg/v1/tarball"
	"github.com/google/go-containerregistry/pkg/v1/types"
)

// nobody is a user that no system has: one who can do nothing but what the image gives.
const nobody = 65532

// made is the time of every file: the same binaries make the same image.
var made = time.Unix(0, 0).UTC()

func main() {
	if len(os.Args) != 5 {
		log.Fatal("image VERSION FOLDER BINARY-AMD64 BINARY-ARM64")
	}
	if err := pack(os.Args[1], os.Args[2], map[string]string{"amd64": os.Args[3], "arm64": os.Args[4]}); err != nil {
		log.Fatal(err)
	}
}

func pack(version, folder string, binaries map[string]string) error {
	index := mutate.IndexMediaType(empty.Index, types.OCIImageIndex)
	for _, arch := range []string{"amd64", "arm64"} {
		image, err := imageOf(version, arch, binaries[arch])
		if err != nil {
			return fmt.Errorf("pack for %s: %w", arch, err)
		}
		index = mutate.AppendManifests(index, mutate.IndexAddendum{
			Add:        image,
			Descriptor: v1.Descriptor{Platform: &v1.Platform{OS: "linux", Architecture: arch}},
		})
	}
	if _, err := layout.Write(folder, index); err != nil {
		return fmt.Errorf("write the image: %w", err)
	}
	return archive(folder)
}

func imageOf(version, arch, binary string) (v1.Image, error) {
	program, err := os.ReadFile(binary)
	if err != nil {
		return nil, err
	}
	var files bytes.Buffer
	w := tar.NewWriter(&files)
	err = errors.Join(
		add(w, &tar.Header{Name: "pinhole", Mode: 0o755, Typeflag: tar.TypeReg}, program),
		add(w, &tar.Header{Name: "data/", Mode: 0o700, Typeflag: tar.TypeDir, Uid: nobody, Gid: nobody}, nil),
		add(w, &tar.Header{Name: "tmp/", Mode: 0o1777, Typeflag: tar.TypeDir}, nil),
		w.Close(),
	)
	if err != nil {
		return nil, err
	}
	layer, err := tarball.LayerFromOpener(func() (io.ReadCloser, error) {
		return io.NopCloser(bytes.NewReader(files.Bytes())), nil
	}, tarball.WithMediaType(types.OCILayer))
	if err != nil {
		return nil, err
	}
	image, err := mutate.AppendLayers(mutate.ConfigMediaType(mutate.MediaType(empty.Image, types.OCIManifestSchema1), types.OCIConfigJSON), layer)
	if err != nil {
		return nil, err
	}
	config, err := image.ConfigFile()
	if err != nil {
		return nil, err
	}
	config = config.DeepCopy()
	config.OS, config.Architecture = "linux", arch
	config.Created = v1.Time{Time: made}
	config.Config = v1.Config{
		User:       fmt.Sprintf("%d:%d", nobody, nobody),
		Entrypoint: []string{"/pinhole"},
		Cmd:        []string{"serve"},
		Env:        []string{"PINHOLE_DATA=/data/pinhole.db"},
		Volumes:    map[string]struct{}{"/data": {}},
		WorkingDir: "/data",
		Labels: map[string]string{
			"org.opencontainers.image.title":   "pinhole",
			"org.opencontainers.image.version": version,
		},
	}
	return mutate.ConfigFile(image, config)
}

func add(w *tar.Writer, h *tar.Header, content []byte) error {
	h.Size, h.ModTime = int64(len(content)), made
	if err := w.WriteHeader(h); err != nil {
		return err
	}
	_, err := w.Write(content)
	return err
}

// archive writes a layout as one file beside it.
func archive(folder string) error {
	out, err := os.Create(folder + ".tar")
	if err != nil {
		return err
	}
	w := tar.NewWriter(out)
	err = filepath.WalkDir(folder, func(path string, entry fs.DirEntry, err error) error {
		if err != nil || entry.IsDir() {
			return err
		}
		content, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		name, err := filepath.Rel(folder, path)
		if err != nil {
			return err
		}
		return add(w, &tar.Header{Name: filepath.ToSlash(name), Mode: 0o644, Typeflag: tar.TypeReg}, content)
	})
	return errors.Join(err, w.Close(), out.Close())
}
