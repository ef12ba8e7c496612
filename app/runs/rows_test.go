package runs

import (
	"testing"

	"tamiz/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }
