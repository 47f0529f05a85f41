package horse

import "slices"

type waysOut struct{}

func (waysOut) Words() []string {
	return []string{
		"head up", "head down too low", "turned away", "backed up", "crowded in",
		"swung hindquarters left", "swung hindquarters right", "swung shoulder left", "swung shoulder right",
		"leaned", "pulled back", "planted", "jogged on the spot", "went sideways", "rushed through",
		"snatched the reins", "spun", "kicked at a tool or rope",
		"kicked at a person", "struck", "bit", "charged", "reared", "bucked", "bolted", "fell or went over backwards",
		"nibbled", "pinned ears", "caught early", "lost its balance",
	}
}

// WayOut is an evasion, logged as a chip (part 2). "Caught early" is a buck
// stopped as the horse gathers itself.
type WayOut = Word[waysOut]

// The ways out that single rules look for.
var (
	TurnedAway       = MustWord[waysOut]("turned away")
	CrowdedIn        = MustWord[waysOut]("crowded in")
	Leaned           = MustWord[waysOut]("leaned")
	PulledBack       = MustWord[waysOut]("pulled back")
	KickedAtTool     = MustWord[waysOut]("kicked at a tool or rope")
	KickedAtPerson   = MustWord[waysOut]("kicked at a person")
	Struck           = MustWord[waysOut]("struck")
	Bit              = MustWord[waysOut]("bit")
	Charged          = MustWord[waysOut]("charged")
	Reared           = MustWord[waysOut]("reared")
	Bucked           = MustWord[waysOut]("bucked")
	Bolted           = MustWord[waysOut]("bolted")
	WentOver         = MustWord[waysOut]("fell or went over backwards")
	Planted          = MustWord[waysOut]("planted")
	Spun             = MustWord[waysOut]("spun")
	PinnedEars       = MustWord[waysOut]("pinned ears")
	LostItsBalance   = MustWord[waysOut]("lost its balance") // counts as arousal 3
	dangerousWaysOut = []WayOut{KickedAtPerson, Struck, Bit, Charged, Reared, Bucked, Bolted, WentOver}
	violentWaysOut   = append([]WayOut{PulledBack}, dangerousWaysOut...)
)

// Dangerous reports whether a way out is one of part 2's bold ones.
func Dangerous(w WayOut) bool { return slices.Contains(dangerousWaysOut, w) }

// Violent reports whether a way out may have shifted the halter.
func Violent(w WayOut) bool { return slices.Contains(violentWaysOut, w) }

type attentions struct{}

func (attentions) Words() []string { return []string{"the person", "home or herd", "an object"} }

// Attention is what a horse's mind is on (part 8).
type Attention = Word[attentions]

// Where it should be, and where it is when it is barn or herd sour.
var (
	OnThePerson  = MustWord[attentions]("the person")
	OnHomeOrHerd = MustWord[attentions]("home or herd")
)

type signs struct{}

func (signs) Words() []string {
	return []string{
		"soft turn-in", "sigh", "lick and chew", "head lowered", "blink", "let-down", "curious",
		"warning look", "nose pushed out", "tight lip", "held breath", "shakes", "white of eye", "snorts",
		"tail pressed", "shut down", "leaves as far as it can", "mouthed the object",
	}
}

// Sign is what was seen on the horse, logged as a chip (part 2).
type Sign = Word[signs]

// The signs that single rules look for.
var (
	LickAndChew = MustWord[signs]("lick and chew")
	WarningLook = MustWord[signs]("warning look")
	ShutDown    = MustWord[signs]("shut down")
	softSigns   = []Sign{MustWord[signs]("soft turn-in"), MustWord[signs]("sigh"), MustWord[signs]("head lowered"), MustWord[signs]("blink"), MustWord[signs]("let-down")}
	fearSigns   = []Sign{MustWord[signs]("shakes"), MustWord[signs]("white of eye"), MustWord[signs]("snorts"), MustWord[signs]("leaves as far as it can"), ShutDown}
)

// SignKind sorts the signs: soft ones, of fear, warning, and others.
func SignKind(s Sign) string {
	switch {
	case SoftSign(s) || s == LickAndChew:
		return "soft"
	case FearSign(s):
		return "afraid"
	case s == WarningLook:
		return "warning"
	}
	return "tense or curious"
}

// FearSign reports whether a sign is one of part 6's fear signs.
func FearSign(s Sign) bool { return slices.Contains(fearSigns, s) }

// SoftSign reports whether a sign shows softness beyond lick and chew.
func SoftSign(s Sign) bool { return slices.Contains(softSigns, s) }
