package yaml

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// bare is a ladder without what a catalogue adds to it: where each step stands.
func bare(l catalog.Ladder) catalog.Ladder {
	steps := make([]catalog.Step, len(l.Steps))
	for i, s := range l.Steps {
		s.Ladder, s.Place = "", 0
		steps[i] = s
	}
	l.Steps = steps
	return l
}

func TestEveryShippedLadderGoesOutAndComesInAgain(t *testing.T) {
	c := shippedCatalog(t)
	for _, l := range c.Ladders {
		text, err := Write(l)
		require.NoError(t, err, l.Key)
		back, faults := ReadLadder(text, c.Rules)
		require.Empty(t, faults, l.Key)
		assert.Equal(t, bare(l), bare(back.Ladder), l.Key)
		assert.Empty(t, back.Differs(l), l.Key)
		for _, s := range l.Steps {
			line := strings.Split(string(text), "\n")[back.Line(s.Key)-1]
			assert.Contains(t, line, "step: "+s.Key)
		}
	}
}

// Whatever is typed into the fields of a ladder goes out and comes in again.
func TestAChangedLadderGoesOutAndComesInAgain(t *testing.T) {
	c := shippedCatalog(t)
	rapid.Check(t, func(t *rapid.T) {
		l := c.Ladders[rapid.IntRange(0, len(c.Ladders)-1).Draw(t, "ladder")]
		l = bare(l)
		s := &l.Steps[rapid.IntRange(0, len(l.Steps)-1).Draw(t, "step")]
		if s.Link == "" {
			s.Name = rapid.StringMatching(`[a-z :#'"{}\[\]&*!|>%@-]{1,20}`).Draw(t, "name")
			s.Ask = phrase.Slotted(rapid.StringN(1, 80, 200).Filter(legible).Draw(t, "ask"))
			s.Watch = phrase.Slotted(rapid.StringN(0, 80, 200).Filter(legible).Draw(t, "watch"))
			s.Kit = rapid.SliceOfN(rapid.SampledFrom([]string{"rope", "yes", "null", "3", "a: b", "- flag"}), 1, 4).Draw(t, "kit")
			s.Needs = rapid.SliceOfN(rapid.Custom(need), 1, 4).Draw(t, "needs")
			s.Pass = catalog.Pass{Run: rapid.IntRange(1, 20).Draw(t, "run"), Level: rapid.IntRange(1, 10).Draw(t, "level"), Arousal: 1}
			s.Pass.Text = s.PassText()
		}
		text, err := Write(l)
		require.NoError(t, err)
		back, faults := ReadLadder(text, c.Rules)
		require.Empty(t, faults, "%s", text)
		require.Equal(t, l, bare(back.Ladder), "%s", text)
	})
}

// legible tells texts that a field of the product would take.
func legible(s string) bool {
	return !strings.ContainsFunc(s, func(r rune) bool { return r < ' ' || r == 0x7f || r > 0x2fff })
}

func need(t *rapid.T) catalog.Need {
	n := catalog.Need{Step: rapid.SampledFrom([]string{"lead.back", "zones.hand", "girth.touch.x"}).Draw(t, "of")}
	switch rapid.IntRange(0, 4).Draw(t, "kind") {
	case 1:
		n.Kept = true
	case 2:
		n.Understood = true
	case 3:
		n.Level = rapid.IntRange(1, 10).Draw(t, "level")
	case 4:
		n.Zone = rapid.SampledFrom((horse.Zone{}).All()).Draw(t, "zone")
	}
	n.Same = rapid.Bool().Draw(t, "same")
	n.When = rapid.SampledFrom(append((catalog.Past{}).All(), catalog.Past{})).Draw(t, "when")
	return n
}

const bridling = `ladder: bridle
name: Ears last
kind: problem
for: [bridling]
schools: [wait it out]
where: In the stable
steps:
  - step: bridle.nose
    name: nose
    ask: Lets the nose be stroked
    plain: letting the nose be stroked
    measure: [hold]
    pass: { run: 3, level: 3, values: [5, 10], unit: s }
`

func TestWhatCantBeReadIsSaidWithItsLine(t *testing.T) {
	c := shippedCatalog(t)
	for name, test := range map[string]struct {
		text string
		want []Fault
	}{
		"nothing":          {"", []Fault{{0, "There is nothing in this file."}}},
		"a word too many":  {strings.Replace(bridling, "    plain:", "    colour: red\n    plain:", 1), []Fault{{11, `There is no "colour" in a step. Look for its spelling, or leave it out.`}}},
		"of a ladder":      {"colour: red\n" + bridling, []Fault{{1, `There is no "colour" in a ladder. Look for its spelling, or leave it out.`}}},
		"of a pass mark":   {strings.Replace(bridling, "run: 3", "rum: 3", 1), []Fault{{13, `There is no "rum" in a pass mark. Look for its spelling, or leave it out.`}}},
		"no number":        {strings.Replace(bridling, "run: 3", "run: three", 1), []Fault{{13, `A whole number belongs here, not "three".`}}},
		"another kind":     {strings.Replace(bridling, "[bridling]", "{a: b}", 1), []Fault{{4, "This is not of the right kind. Look how a ladder that was taken out has it."}}},
		"twice":            {strings.Replace(bridling, "    plain:", "    name: x\n    plain:", 1), []Fault{{11, `"name" is there twice, first in line 9. Leave one.`}}},
		"no YAML":          {strings.Replace(bridling, "[hold]", "[hold", 1), []Fault{{11, "About here it can't be read as YAML. Look at the spaces before the line, the colon after the word, and the brackets."}}},
		"a need":           {bridling + "    needs: [lead.back soon]\n", []Fault{{8, `A need is a step, "… at level 3", "… kept", "… understood" or "… in zone 2", perhaps "on that side" or "when not yet ridden", not "lead.back soon".`}}},
		"two ladders":      {bridling + "---\n" + bridling, []Fault{{14, "There is more than one ladder in this file. Give each a file of its own."}}},
		"a film, in error": {"\x00\x01\x02", []Fault{{0, "About here it can't be read as YAML. Look at the spaces before the line, the colon after the word, and the brackets."}}},
	} {
		t.Run(name, func(t *testing.T) {
			_, faults := ReadLadder([]byte(test.text), c.Rules)
			assert.Equal(t, test.want, faults)
		})
	}
	// The name of a problem where a part of the body belongs: the line is that of the latter.
	feet := strings.Replace(bridling, "[bridling]", "[feet]", 1) + "    blocked: [feet]\n"
	_, faults := ReadLadder([]byte(feet), c.Rules)
	require.Len(t, faults, 1)
	assert.Equal(t, 14, faults[0].Line)
	assert.Contains(t, faults[0].Say, `"feet" can't be: one of mouth, back`)
}

func TestAFileThatRepeatsItselfWithoutEndIsRefused(t *testing.T) {
	text := "a: &a [x, x, x, x, x, x, x, x, x]\n"
	for i := range 9 {
		text += fmt.Sprintf("%c: &%c [%s]\n", 'b'+i, 'b'+i, strings.TrimSuffix(strings.Repeat(fmt.Sprintf("*%c, ", 'a'+i), 9), ", "))
	}
	_, faults := ReadLadder([]byte(text), shippedCatalog(t).Rules)
	assert.NotEmpty(t, faults)
}

// What keeps a horse safe can't be taken out of a ladder in an editor.
func TestWhatStaysAsItShips(t *testing.T) {
	c := shippedCatalog(t)
	l, _ := c.Ladder("bridle")
	text, err := Write(l)
	require.NoError(t, err)
	step, _ := c.Step("bridle.ears")
	require.NotEmpty(t, step.Kit)
	for name, test := range map[string]struct{ old, new, want string }{
		"a problem more":  {"for: [bridling]", "for: [bridling, girth]", `"for" can't be changed here. Write: for: [bridling]`},
		"not to be there": {"name: ears\n", "name: ears\n    opens riding: true\n", `"opens riding" can't be changed here. Leave it out.`},
		"another name":    {"name: ears\n", "name: the ears\n", ""},
	} {
		t.Run(name, func(t *testing.T) {
			require.Contains(t, string(text), test.old)
			back, faults := ReadLadder([]byte(strings.Replace(string(text), test.old, test.new, 1)), c.Rules)
			require.Empty(t, faults)
			var says []string
			for _, f := range back.Differs(l) {
				says = append(says, f.Say)
			}
			if test.want == "" {
				assert.Empty(t, says)
				return
			}
			assert.Equal(t, []string{test.want}, says)
		})
	}
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			if len(s.Blocked) == 0 {
				continue
			}
			open := s
			open.Blocked = nil
			changed := l
			changed.Steps = []catalog.Step{open}
			faults := Written{Ladder: changed}.Differs(l)
			require.Len(t, faults, 1, s.Key)
			assert.Contains(t, faults[0].Say, `"blocked" can't be changed here. Write: blocked: [`)
		}
	}
}

func ExampleReadLadder() {
	c, _ := Shipped()
	_, faults := ReadLadder([]byte("ladder: bridle\nnmae: Ears last\n"), c.Rules)
	for _, f := range faults {
		fmt.Println(f.Line, f.Say)
	}
	// Output: 2 There is no "nmae" in a ladder. Look for its spelling, or leave it out.
}
