package horse

type verdicts struct{}

func (verdicts) Words() []string { return []string{"better", "the same", "worse"} }

// Verdict on a trial: one change, and how the horse went with it.
type Verdict = Word[verdicts]

// The verdicts that the rules read.
var (
	Better = MustWord[verdicts]("better")
	Worse  = MustWord[verdicts]("worse")
)

type tackItems struct{}

func (tackItems) Words() []string {
	return []string{"mouthpiece", "bit", "noseband", "reins", "running aid", "curb", "saddle", "spurs", "stick", "leg"}
}

// TackItem is what a review looks at: the tack, and how the rider's aids lie (part 5,
// the first steps of "Heavy" and of "Rushing").
type TackItem = Word[tackItems]
