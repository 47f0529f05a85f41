package e2e

import (
	"strconv"
	"strings"

	"github.com/go-rod/rod/lib/launcher/flags"
)

func flagOf(name string) flags.Flag { return flags.Flag(name) }

func itoa(n int) string { return strconv.Itoa(n) }

// contains compares as one reads: white space does not count.
func contains(text, part string) bool {
	return strings.Contains(strings.Join(strings.Fields(text), " "), strings.Join(strings.Fields(part), " "))
}
