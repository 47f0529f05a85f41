package accounts

import (
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"fmt"
	"strings"
	"unicode"
	"unicode/utf8"

	"github.com/trustelem/zxcvbn"
	"golang.org/x/crypto/argon2"

	"ivorybridge/server/api"
)

// The cost of a password's hash: 19 MiB, two passes.
const (
	hashMemory = 19 << 10 // KiB
	hashTime   = 2
	hashKey    = 32
)

// Hash hashes a password with argon2id and a salt of its own.
func Hash(password string) string {
	salt := make([]byte, 16)
	_, _ = rand.Read(salt) // never fails
	key := argon2.IDKey([]byte(password), salt, hashTime, hashMemory, 1, hashKey)
	enc := base64.RawStdEncoding
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=1$%s$%s", argon2.Version, hashMemory, hashTime, enc.EncodeToString(salt), enc.EncodeToString(key))
}

// matches reports whether a password gives the hash.
func matches(hash, password string) bool {
	parts := strings.Split(hash, "$")
	if len(parts) != 6 {
		return false
	}
	var memory, passes uint32
	var lanes uint8
	if _, err := fmt.Sscanf(parts[3], "m=%d,t=%d,p=%d", &memory, &passes, &lanes); err != nil {
		return false
	}
	salt, errSalt := base64.RawStdEncoding.DecodeString(parts[4])
	want, errKey := base64.RawStdEncoding.DecodeString(parts[5])
	if errSalt != nil || errKey != nil {
		return false
	}
	got := argon2.IDKey([]byte(password), salt, passes, memory, lanes, uint32(len(want)))
	return subtle.ConstantTimeCompare(got, want) == 1
}

// The shortest and the longest password, in characters, and how many guesses one
// must outlast: ten thousand times what is usual.
const (
	shortest = 10
	longest  = 200
	guesses  = 1e8
	judged   = 100 // characters: beyond them nobody guesses, and estimating is slow
)

// WeakPassword says what is wrong with a new password, or nothing. About are words
// that somebody who knows its owner would try: the name, the address, the practice.
func WeakPassword(password string, about ...string) string {
	switch n := utf8.RuneCountInString(password); {
	case n < shortest:
		return "The password is too short. Use 10 characters or more; a few words are good."
	case n > longest:
		return "The password is too long. Use 200 characters or fewer."
	}
	if zxcvbn.PasswordStrength(api.Clip(password, judged), words(about)).Guesses < guesses {
		return "This password is among the first that are tried. Use a few words that do not belong together."
	}
	return ""
}

// words are the words in some texts, each by itself and those of a text in one.
func words(texts []string) []string {
	var list []string
	for _, t := range texts {
		some := strings.FieldsFunc(strings.ToLower(t), func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) })
		list = append(append(list, some...), strings.Join(some, ""))
	}
	return list
}

// OneTimePassword makes a password that must be changed at the first sign-in.
func OneTimePassword() string { return strings.ToLower(rand.Text()[:16]) }
