// Package horse is the ground floor of the rules: the handbook's words as
// types. A word, a level or a variant that exists as a value here is one that
// the handbook knows (parts 2, 3 and 9); everything above builds on that.
package horse

import "slices"

type (
	levels   struct{}
	arousals struct{}
	faces    struct{}
	pulses   struct{}
)

func (levels) Bounds() (string, int, int)   { return "a level", 0, 10 }
func (arousals) Bounds() (string, int, int) { return "arousal", 0, 4 }
func (faces) Bounds() (string, int, int)    { return "face", 0, 4 }
func (pulses) Bounds() (string, int, int)   { return "pulses", 0, 99 }

type (
	// Level is the pressure of any aid, 0 none to 10 the most this trainer
	// would ever use with this horse (part 2).
	Level = Scale[levels]
	// Arousal runs from 0 settled to 4 explosive; 3 is over the line (part 2).
	Arousal = Scale[arousals]
	// Face is 0 forward and easy to 4 bites (part 2).
	Face = Scale[faces]
	// Pulses counts the pulses after the touch in the pulsed form (part 2).
	Pulses = Scale[pulses]
)

// LevelOf returns the level nearest to n.
func LevelOf(n int) Level { return Clamp[levels](n) }

// ArousalOf returns the arousal nearest to n.
func ArousalOf(n int) Arousal { return Clamp[arousals](n) }

// FaceOf returns the face nearest to n.
func FaceOf(n int) Face { return Clamp[faces](n) }

// PulsesOf returns the count of pulses nearest to n.
func PulsesOf(n int) Pulses { return Clamp[pulses](n) }

type answers struct{}

func (answers) Words() []string {
	return []string{"refused", "try", "tolerated", "accepted", "offered"}
}

// Answer is what the horse did, graded (part 2).
type Answer = Word[answers]

// The five answers.
var (
	Refused   = word[answers]("refused")
	Try       = word[answers]("try")
	Tolerated = word[answers]("tolerated")
	Accepted  = word[answers]("accepted")
	Offered   = word[answers]("offered")
)

// Soft reports whether the answer was accepted or offered, which is what the
// rules call accepted (part 6).
func Soft(a Answer) bool { return a.Rank() >= Accepted.Rank() }

type manners struct{}

func (manners) Words() []string { return []string{"tense", "sour"} }

// Manner is how a tolerated answer was tolerated (part 2).
type Manner = Word[manners]

// The two manners of tolerating.
var (
	Tense = word[manners]("tense")
	Sour  = word[manners]("sour")
)

type releases struct{}

func (releases) Words() []string {
	return []string{"on the try", "late", "early", "wrong moment", "not released"}
}

// Release is when the pressure was let go (part 2).
type Release = Word[releases]

// The five moments of release.
var (
	OnTheTry    = word[releases]("on the try")
	Late        = word[releases]("late")
	Early       = word[releases]("early")
	WrongMoment = word[releases]("wrong moment")
	NotReleased = word[releases]("not released")
)

type sizes struct{}

func (sizes) Words() []string { return []string{"small", "medium", "big"} }

// ReleaseSize is how big the release is (parts 2 and 6).
type ReleaseSize = Word[sizes]

// The three sizes of release.
var (
	Small  = word[sizes]("small")
	Medium = word[sizes]("medium")
	Big    = word[sizes]("big")
)

type forms struct{}

func (forms) Words() []string { return []string{"building", "steady", "pulsed"} }

// Form is how the pressure was given (part 2).
type Form = Word[forms]

// Pulsed is the touch with even pulses until the try.
var Pulsed = word[forms]("pulsed")

type aids struct{}

func (aids) Words() []string {
	return []string{"rope", "hand", "leg", "rein", "stick", "voice", "other tool"}
}

// Aid is what the pressure was given with (part 2).
type Aid = Word[aids]

type quarters struct{}

func (quarters) Words() []string { return []string{"front", "shoulder", "behind"} }

// CameFrom is from where it was come to the horse (part 2): some say no to one
// of them only.
type CameFrom = Word[quarters]

type holds struct{}

func (holds) Words() []string {
	return []string{"free", "loose line", "slack rope", "held", "tied", "ridden"}
}

// Held is how the horse was kept (part 2).
type Held = Word[holds]

// Two ways to be kept that make standing still prove little.
var (
	HeldFast = word[holds]("held")
	Tied     = word[holds]("tied")
	Ridden   = word[holds]("ridden")
)

type enders struct{}

func (enders) Words() []string { return []string{"handler", "horse"} }

// EndedBy is who ended a hold (part 6).
type EndedBy = Word[enders]

// Who ended it.
var (
	ByHandler = word[enders]("handler")
	ByHorse   = word[enders]("horse")
)

type flags struct{}

func (flags) Words() []string {
	return []string{"not noticed", "outside cause", "not finished", "fed", "rear cleared"}
}

// Flag is a remark on a rep that the rules read (parts 2 and 6). "Fed" is
// food given with the rep; "rear cleared" is the lead trainer's mark that a
// rear was not at a person, the rope clear, the horse not afraid.
type Flag = Word[flags]

// The flags.
var (
	NotNoticed   = word[flags]("not noticed")
	OutsideCause = word[flags]("outside cause")
	Fed          = word[flags]("fed")
	RearCleared  = word[flags]("rear cleared")
)

type bodyItems struct{}

func (bodyItems) Words() []string {
	return []string{"mouth", "back", "belly", "saddle fit", "feet legs", "hind leg", "balance", "eyes", "skin", "weight"}
}

// BodyItem is a part of section B (part 3).
type BodyItem = Word[bodyItems]

// The items that single rules look for; the hind leg is the one that snatches
// or locks.
var (
	Mouth     = word[bodyItems]("mouth")
	Back      = word[bodyItems]("back")
	Belly     = word[bodyItems]("belly")
	SaddleFit = word[bodyItems]("saddle fit")
	FeetLegs  = word[bodyItems]("feet legs")
	HindLeg   = word[bodyItems]("hind leg")
	Balance   = word[bodyItems]("balance")
	Eyes      = word[bodyItems]("eyes")
)

type bodyStates struct{}

func (bodyStates) Words() []string {
	return []string{"not looked at", "clear", "suspect", "in treatment", "cleared"}
}

// BodyState is what is known of a body item (part 3, B).
type BodyState = Word[bodyStates]

// The states of a body item.
var (
	NotLookedAt = word[bodyStates]("not looked at")
	Clear       = word[bodyStates]("clear")
	Suspect     = word[bodyStates]("suspect")
	InTreatment = word[bodyStates]("in treatment")
	Cleared     = word[bodyStates]("cleared")
)

type schools struct{}

func (schools) Words() []string {
	return []string{"build and release", "relief place", "wait it out", "ask and listen", "doses"}
}

// School is one of the five ways of working (part 4).
type School = Word[schools]

// The five schools.
var (
	BuildAndRelease = word[schools]("build and release")
	ReliefPlace     = word[schools]("relief place")
	WaitItOut       = word[schools]("wait it out")
	AskAndListen    = word[schools]("ask and listen")
	Doses           = word[schools]("doses")
)

type problems struct{}

func (problems) Words() []string {
	return []string{
		"loading", "sour", "bridling", "saddling", "girth", "feet", "bucking", "rushing", "planting", "crowding",
		"aggression", "new thing", "mounting", "tension", "tracks", "heavy",
	}
}

// Problem is a problem behaviour taken on (part 1).
type Problem = Word[problems]

// The problems that single rules look for.
var (
	Loading    = word[problems]("loading")
	Bridling   = word[problems]("bridling")
	Saddling   = word[problems]("saddling")
	Girth      = word[problems]("girth")
	Crowding   = word[problems]("crowding")
	Aggression = word[problems]("aggression")
)

type cares struct{}

func (cares) Words() []string {
	return []string{"ordinary care", "extra care", "high care", "specialist only"}
}

// Care is the risk grade (part 3).
type Care = Word[cares]

// The four grades of care.
var (
	OrdinaryCare   = word[cares]("ordinary care")
	ExtraCare      = word[cares]("extra care")
	HighCare       = word[cares]("high care")
	SpecialistOnly = word[cares]("specialist only")
)

type experiences struct{}

func (experiences) Words() []string {
	return []string{"beginner", "improving", "sound", "professional"}
}

// Experience is a handler's (part 3, H).
type Experience = Word[experiences]

// Beginner is the handler with no firm levels on the horse; with an improving
// one it does not match a horse of high energy.
var (
	Beginner  = word[experiences]("beginner")
	Improving = word[experiences]("improving")
)

type stepStates struct{}

func (stepStates) Words() []string {
	return []string{"untried", "tried", "tolerated", "met", "kept", "slipped"}
}

// StepState is how far an ask has come (part 5).
type StepState = Word[stepStates]

// The states of a step.
var (
	Untried       = word[stepStates]("untried")
	Tried         = word[stepStates]("tried")
	StepTolerated = word[stepStates]("tolerated")
	Met           = word[stepStates]("met")
	Kept          = word[stepStates]("kept")
	Slipped       = word[stepStates]("slipped")
)

type minds struct{}

func (minds) Words() []string { return []string{"calm", "tight", "scared", "angry"} }

// Mind is the handler's own state at readiness (part 6).
type Mind = Word[minds]

// The handler's states that the rules read.
var (
	Calm   = word[minds]("calm")
	Tight  = word[minds]("tight")
	Scared = word[minds]("scared")
	Angry  = word[minds]("angry")
)

type stops struct{}

func (stops) Words() []string {
	return []string{
		"injury to horse", "injury to person", "pain", "lameness", "wound", "exhaustion",
		"heat", "ice", "storm", "handler angry", "handler frightened", "handler hurt",
		"must be held to be mounted", "ears back at the block, mouth open or a hind leg unweighted",
	}
}

// AtTheBlock reports whether a stop reason is one of mounting: nobody gets on
// (part 9).
func AtTheBlock(s Stop) bool { return s.Rank() > 12 }

// BeforeWork reports whether a stop reason can be seen before anything is asked:
// the weather, the body, or at the block.
func BeforeWork(s Stop) bool {
	return AtTheBlock(s) || slices.Contains([]string{"heat", "ice", "storm", "lameness", "wound", "pain"}, s.String())
}

// Stop is a reason that ends the session at once (parts 6 and 9).
type Stop = Word[stops]
