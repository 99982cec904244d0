package rehearsal

import (
	"embed"
	"fmt"
	"path"
	"strings"

	"github.com/goccy/go-yaml"
)

// readFolder reads every YAML file of a folder; named is told the name of each.
func readFolder[T any](files embed.FS, folder string, named func(*T, string)) ([]T, error) {
	entries, err := files.ReadDir(folder)
	if err != nil {
		return nil, err
	}
	list := make([]T, len(entries))
	for i, entry := range entries {
		text, err := files.ReadFile(path.Join(folder, entry.Name()))
		if err != nil {
			return nil, err
		}
		if err := yaml.UnmarshalWithOptions(text, &list[i], yaml.DisallowUnknownField()); err != nil {
			return nil, fmt.Errorf("%s: %w", entry.Name(), err)
		}
		named(&list[i], strings.TrimSuffix(entry.Name(), ".yaml"))
	}
	return list, nil
}
