// Command mutate changes one number of the rules at a time, by one up and by
// one down, and runs the tests of its package: each change must make a test
// fail. It prints the numbers that could be changed without any test noticing,
// and exits with 1 if there is one.
//
// It looks at the numbers that the rules compare and count with: every
// constant that is declared, and every literal of 2 and more. Places in a list,
// numbers in a test, and lines that end in "mutate: …" with a reason are left
// out.
package main

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"time"
)

// A mutant is one number changed.
type mutant struct {
	file     string
	line     int
	from, to string
	at       int // offset in the file
	dir      string
}

func (m mutant) String() string {
	return fmt.Sprintf("%s:%d: %s → %s", m.file, m.line, m.from, m.to)
}

func main() {
	most := flag.Duration("most", 30*time.Minute, "how long it may take; what is not tried by then is counted")
	only := flag.String("only", "", "files to look at, by a part of their names")
	flag.Parse()
	var all []mutant
	for _, dir := range flag.Args() {
		found, err := mutants(dir, *only)
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(2)
		}
		all = append(all, found...)
	}
	rand.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	ctx, cancel := context.WithTimeout(context.Background(), *most)
	defer cancel()
	survived, tried := try(ctx, all)
	fmt.Printf("mutants: %d of %d tried, %d survived\n", tried, len(all), survived)
	if survived > 0 {
		os.Exit(1)
	}
}

// try runs the tests against each mutant, two at a time.
func try(ctx context.Context, all []mutant) (survived, tried int) {
	var mu sync.Mutex
	var wait sync.WaitGroup
	next := make(chan mutant)
	for range 2 {
		wait.Go(func() {
			for m := range next {
				lives, err := survives(ctx, m)
				mu.Lock()
				switch {
				case ctx.Err() != nil:
				case err != nil:
					fmt.Fprintln(os.Stderr, m, err)
					survived++
				default:
					tried++
					if lives {
						survived++
						fmt.Println("survived:", m)
					}
				}
				mu.Unlock()
			}
		})
	}
	for _, m := range all {
		if ctx.Err() != nil {
			break
		}
		next <- m
	}
	close(next)
	wait.Wait()
	return survived, tried
}

// survives reports whether all tests of the package pass with the number
// changed.
func survives(ctx context.Context, m mutant) (bool, error) {
	dir, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return false, err
	}
	defer func() { _ = os.RemoveAll(dir) }()
	text, err := os.ReadFile(m.file)
	if err != nil {
		return false, err
	}
	changed := filepath.Join(dir, filepath.Base(m.file))
	if err := os.WriteFile(changed, []byte(string(text[:m.at])+m.to+string(text[m.at+len(m.from):])), 0o600); err != nil {
		return false, err
	}
	whole, err := filepath.Abs(m.file)
	if err != nil {
		return false, err
	}
	overlay, err := json.Marshal(map[string]map[string]string{"Replace": {whole: changed}})
	if err != nil {
		return false, err
	}
	list := filepath.Join(dir, "overlay.json")
	if err := os.WriteFile(list, overlay, 0o600); err != nil {
		return false, err
	}
	out, err := exec.CommandContext(ctx, "go", "test", "-overlay", list, "-vet=off", "-ldflags=-s -w", "-failfast", "-timeout", "2m", "./"+m.dir, "-rapid.checks=30", "-rapid.nofailfile").CombinedOutput()
	if strings.Contains(string(out), "[build failed]") {
		return false, nil // a table that no longer fits its type: the compiler noticed
	}
	return err == nil, nil
}

func mutants(dir, only string) ([]mutant, error) {
	files, err := filepath.Glob(filepath.Join(dir, "*.go"))
	var all []mutant
	for _, path := range files {
		if strings.HasSuffix(path, "_test.go") || !strings.Contains(path, only) {
			continue
		}
		text, readErr := os.ReadFile(path)
		if readErr != nil {
			return nil, readErr
		}
		set := token.NewFileSet()
		file, parseErr := parser.ParseFile(set, path, text, parser.ParseComments)
		if parseErr != nil {
			return nil, parseErr
		}
		lines := strings.Split(string(text), "\n")
		for _, lit := range numbers(file) {
			at := set.Position(lit.Pos())
			if strings.Contains(lines[at.Line-1], "mutate: ") {
				continue
			}
			for _, to := range changes(lit) {
				all = append(all, mutant{file: path, line: at.Line, from: lit.Value, to: to, at: at.Offset, dir: dir})
			}
		}
	}
	return all, err
}

// numbers lists the literals that are looked at.
func numbers(file *ast.File) []*ast.BasicLit {
	var list []*ast.BasicLit
	declared := map[*ast.BasicLit]bool{}
	skip := map[ast.Node]bool{}
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.GenDecl:
			if n.Tok == token.CONST {
				ast.Inspect(n, func(n ast.Node) bool {
					if lit, ok := n.(*ast.BasicLit); ok {
						declared[lit] = true
					}
					return true
				})
			}
		case *ast.IndexExpr:
			skip[n.Index] = true
		case *ast.ArrayType:
			skip[n.Len] = true
		case *ast.CallExpr:
			if name, ok := n.Fun.(*ast.Ident); ok && name.Name == "make" {
				for _, arg := range n.Args {
					skip[arg] = true
				}
			}
		case *ast.BasicLit:
			if skip[n] || n.Kind != token.INT && n.Kind != token.FLOAT {
				return true
			}
			value, err := strconv.ParseFloat(strings.ReplaceAll(n.Value, "_", ""), 64)
			if err == nil && (declared[n] || value >= 2 || n.Kind == token.FLOAT && value > 0) {
				list = append(list, n)
			}
		}
		return true
	})
	return list
}

// changes are the numbers beside one.
func changes(lit *ast.BasicLit) []string {
	if lit.Kind == token.INT {
		n, err := strconv.Atoi(strings.ReplaceAll(lit.Value, "_", ""))
		if err != nil {
			return nil
		}
		return []string{strconv.Itoa(n + 1), strconv.Itoa(n - 1)}
	}
	f, err := strconv.ParseFloat(lit.Value, 64)
	if err != nil {
		return nil
	}
	return []string{strconv.FormatFloat(f*1.1, 'g', -1, 64), strconv.FormatFloat(f*0.9, 'g', -1, 64)}
}
