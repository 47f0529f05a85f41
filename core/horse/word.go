package horse

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
)

// A Vocabulary is a closed list of the handbook's words, in the handbook's
// order.
type Vocabulary interface{ Words() []string }

// A Word is one word of a vocabulary, or nothing said (the zero value). It
// can't hold a word that is not in the list.
type Word[V Vocabulary] struct{ i uint8 }

// ParseWord returns the word spelled s; the empty string is nothing said.
func ParseWord[V Vocabulary](s string) (Word[V], error) {
	if s == "" {
		return Word[V]{}, nil
	}
	var v V
	words := v.Words()
	i := slices.Index(words, s)
	if i < 0 {
		return Word[V]{}, &ValueError{Got: s, Want: "one of " + strings.Join(words, ", ")}
	}
	return Word[V]{uint8(i + 1)}, nil
}

// MustWord is the word spelled s, for words that the code names; it panics where
// the vocabulary has no such word.
func MustWord[V Vocabulary](s string) Word[V] {
	w, err := ParseWord[V](s)
	if err != nil {
		panic(err)
	}
	return w
}

// All returns every word of the vocabulary in order.
func (w Word[V]) All() []Word[V] {
	var v V
	all := make([]Word[V], len(v.Words()))
	for i := range all {
		all[i].i = uint8(i + 1)
	}
	return all
}

// Words lists the spellings, in order.
func (w Word[V]) Words() []string {
	var v V
	return v.Words()
}

// IsZero reports whether nothing was said.
func (w Word[V]) IsZero() bool { return w.i == 0 }

// Rank is the place in the list from 1; 0 when nothing was said. Answers and
// grades of care compare by it.
func (w Word[V]) Rank() int { return int(w.i) }

func (w Word[V]) String() string {
	if w.i == 0 {
		return ""
	}
	var v V
	return v.Words()[w.i-1]
}

// MarshalText spells the word.
func (w Word[V]) MarshalText() ([]byte, error) { return []byte(w.String()), nil }

// UnmarshalText reads a spelling and refuses any that is not in the list.
func (w *Word[V]) UnmarshalText(b []byte) error {
	v, err := ParseWord[V](string(b))
	if err != nil {
		return err
	}
	*w = v
	return nil
}

// A Range names a scale of whole numbers and its ends.
type Range interface {
	Bounds() (name string, lo, hi int)
}

// A Scale is a number on one of part 2's scales, or not noted (the zero
// value, null in JSON). It can't hold a number outside the scale.
type Scale[R Range] struct{ n uint8 }

// At returns the number n of a scale, or an error that says what is accepted.
func At[R Range](n int) (Scale[R], error) {
	var r R
	name, lo, hi := r.Bounds()
	if n < lo || n > hi {
		return Scale[R]{}, &ValueError{Got: fmt.Sprint(n), Want: fmt.Sprintf("%s is a whole number from %d to %d", name, lo, hi)}
	}
	return Scale[R]{uint8(n - lo + 1)}, nil
}

// Clamp returns the number of the scale nearest to n.
func Clamp[R Range](n int) Scale[R] {
	var r R
	_, lo, hi := r.Bounds()
	return Scale[R]{uint8(min(max(n, lo), hi) - lo + 1)}
}

// Noted reports whether a number was noted.
func (s Scale[R]) Noted() bool { return s.n != 0 }

// IsZero reports whether nothing was noted; 0 on the scale is noted.
func (s Scale[R]) IsZero() bool { return s.n == 0 }

// Int is the number, or the low end when nothing was noted.
func (s Scale[R]) Int() int {
	var r R
	_, lo, _ := r.Bounds()
	return max(int(s.n)-1, 0) + lo
}

func (s Scale[R]) String() string {
	if s.n == 0 {
		return "not noted"
	}
	return fmt.Sprint(s.Int())
}

// Bounds gives the scale's name and ends.
func (s Scale[R]) Bounds() (name string, lo, hi int) {
	var r R
	return r.Bounds()
}

// MarshalJSON writes the number, or null when not noted.
func (s Scale[R]) MarshalJSON() ([]byte, error) {
	if s.n == 0 {
		return []byte("null"), nil
	}
	return json.Marshal(s.Int())
}

// UnmarshalJSON reads null or a whole number on the scale.
func (s *Scale[R]) UnmarshalJSON(b []byte) error {
	if string(b) == "null" {
		*s = Scale[R]{}
		return nil
	}
	var n int
	if err := json.Unmarshal(b, &n); err != nil {
		name, lo, hi := s.Bounds()
		return &ValueError{Got: string(b), Want: fmt.Sprintf("%s is a whole number from %d to %d", name, lo, hi)}
	}
	v, err := At[R](n)
	if err != nil {
		return err
	}
	*s = v
	return nil
}

// A ValueError is a value the handbook has no place for.
type ValueError struct{ Got, Want string }

func (e *ValueError) Error() string { return fmt.Sprintf("%q can't be: %s", e.Got, e.Want) }
