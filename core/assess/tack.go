package assess

import (
	"cmp"
	"fmt"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type bits struct{}

func (bits) Words() []string { return []string{"none", "direct ring", "leverage", "gag", "mixed"} }

// Bit is a family of bits.
type Bit = horse.Word[bits]

type nosebands struct{}

func (nosebands) Words() []string { return []string{"none", "loose", "tight", "crossed"} }

// Noseband is how the noseband is done up.
type Noseband = horse.Word[nosebands]

type aids struct{}

func (aids) Words() []string { return []string{"none", "martingale", "draw rein", "other"} }

// RunningAid is an aid that holds the head.
type RunningAid = horse.Word[aids]

type extras struct{}

func (extras) Words() []string { return []string{"curb", "spurs", "whip"} }

// Extra is what else is on or in hand.
type Extra = horse.Word[extras]

type fits struct{}

func (fits) Words() []string { return []string{"fits", "does not fit"} }

// Fit of the saddle or the bit.
type Fit = horse.Word[fits]

var misfit = horse.MustWord[fits]("does not fit")

type settings struct{}

func (settings) Words() []string { return []string{"noseband", "bit", "running aid", "curb"} }

// Setting is a strong or tight choice of tack that needs a reason.
type Setting = horse.Word[settings]

type straps struct{}

func (straps) Words() []string {
	return []string{"cheekpiece", "noseband", "throat strap", "curb strap", "girth"}
}

// Strap whose hole is written down.
type Strap = horse.Word[straps]

// Tack is what is on the horse (section C).
type Tack struct {
	Bit        Bit                `json:"bit,omitzero" doc:"which bit"`
	Mouthpiece string             `json:"mouthpiece,omitempty" maxLength:"200" doc:"material and joints"`
	Rings      string             `json:"rings,omitempty" maxLength:"200" doc:"cheekpiece and rein ring used"`
	BitFit     Fit                `json:"bit_fit,omitzero" doc:"whether the bit fits"`
	Noseband   Noseband           `json:"noseband,omitzero" doc:"the noseband"`
	Aids       []RunningAid       `json:"aids,omitempty" maxItems:"4" doc:"running aids in use"`
	Extras     []Extra            `json:"extras,omitempty" maxItems:"3" doc:"whip, spurs and the like in use"`
	Saddle     Fit                `json:"saddle,omitzero" doc:"whether the saddle fits"`
	Bridles    map[string]Bridle  `json:"bridles,omitempty" doc:"by an id of the device"`
	Reasons    map[Setting]string `json:"reasons,omitempty" doc:"why a strong or tight setting is used"`
	Trials     map[string]Trial   `json:"trials,omitempty" doc:"one change at a time, by an id of the device"`
}

// Bridle is the hole of each strap of one bridle, counted from the buckle.
type Bridle struct {
	Name  string              `json:"name,omitempty" maxLength:"60" doc:"what it is called"`
	Holes map[Strap]BothSides `json:"holes,omitempty" doc:"hole of each strap, near and off"`
}

// BothSides is a hole near and off; a strap with one buckle uses near.
type BothSides struct {
	Near *int `json:"near,omitempty" doc:"on the near side"`
	Off  *int `json:"off,omitempty" doc:"on the off side"`
}

// Verdict on a trial.
type Verdict = horse.Verdict

// Trial is one change of tack, tried.
type Trial struct {
	Changed string  `json:"changed,omitempty" maxLength:"200" doc:"the one thing changed"`
	Milder  bool    `json:"milder,omitempty" doc:"milder than what was on"`
	Minutes *int    `json:"minutes,omitempty" doc:"how long it was tried"`
	Saw     string  `json:"saw,omitempty" maxLength:"300" doc:"what was seen"`
	Verdict Verdict `json:"verdict,omitzero" doc:"whether it was better"`
	On      string  `json:"on,omitempty" maxLength:"10" doc:"day"`
}

// strong lists the strong or tight settings in use.
func (t Tack) strong() []Setting {
	var list []Setting
	all := Setting{}.All()
	if n := t.Noseband.String(); n == "tight" || n == "crossed" {
		list = append(list, all[0])
	}
	if b := t.Bit.String(); b == "leverage" || b == "gag" || b == "mixed" {
		list = append(list, all[1])
	}
	if t.running() {
		list = append(list, all[2])
	}
	if slices.ContainsFunc(t.Extras, func(e Extra) bool { return e.String() == "curb" }) {
		list = append(list, all[3])
	}
	return list
}

func (t Tack) running() bool {
	return slices.ContainsFunc(t.Aids, func(a RunningAid) bool { return a.Rank() > 1 })
}

func (t Tack) milderTried() bool {
	for _, trial := range t.Trials {
		if trial.Milder && !trial.Verdict.IsZero() {
			return true
		}
	}
	return false
}

// Loosen proposes loosening each strong or tight setting that has no reason,
// and says of straps whose two sides differ that they do.
func (t Tack) Loosen() []phrase.Message {
	var list []phrase.Message
	for _, s := range t.strong() {
		if t.Reasons[s] == "" {
			list = append(list, phrase.Of("tack.loosen", phrase.Args{"setting": s.String()}))
		}
	}
	for _, b := range t.Bridles {
		for _, strap := range (Strap{}).All() {
			if h := b.Holes[strap]; h.Near != nil && h.Off != nil && *h.Near != *h.Off {
				list = append(list, phrase.Of("tack.uneven", phrase.Args{"strap": strap.String(), "bridle": cmp.Or(b.Name, "the bridle"), "near": *h.Near, "off": *h.Off, "near_side": phrase.Sided("near"), "off_side": phrase.Sided("off")}))
			}
		}
	}
	slices.SortStableFunc(list, func(a, b phrase.Message) int {
		return cmp.Compare(fmt.Sprint(a.Key, a.Args), fmt.Sprint(b.Key, b.Args))
	})
	return list
}

func (t Tack) check(today string, f *faults) {
	f.short("tack/mouthpiece", t.Mouthpiece, 200)
	f.short("tack/rings", t.Rings, 200)
	f.few("tack/bridles", len(t.Bridles), 12)
	f.few("tack/trials", len(t.Trials), 40)
	for id, b := range t.Bridles {
		f.short("tack/bridles/"+id+"/name", b.Name, 60)
		for strap, h := range b.Holes {
			at := fmt.Sprintf("tack/bridles/%s/holes/%s", id, strap)
			f.within(at+"/near", h.Near, 1, 30, "holes")
			f.within(at+"/off", h.Off, 1, 30, "holes")
		}
	}
	for setting, why := range t.Reasons {
		f.short("tack/reasons/"+setting.String(), why, 300)
	}
	for id, trial := range t.Trials {
		at := "tack/trials/" + id
		f.short(at+"/changed", trial.Changed, 200)
		f.short(at+"/saw", trial.Saw, 300)
		f.within(at+"/minutes", trial.Minutes, 1, 600, "minutes")
		f.past(at+"/on", trial.On, today)
	}
}
