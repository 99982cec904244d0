package store

import (
	sqldriver "database/sql/driver"

	"modernc.org/sqlite"

	"vastlantern/core/fold"
)

// fold is in SQL what it is in Go: text without capital letters and marks. SQLite itself folds the letters of ASCII
// alone.
func init() {
	sqlite.MustRegisterDeterministicScalarFunction("fold", 1,
		func(_ *sqlite.FunctionContext, args []sqldriver.Value) (sqldriver.Value, error) {
			if text, ok := args[0].(string); ok {
				return fold.Text(text), nil
			}
			return args[0], nil
		})
}
