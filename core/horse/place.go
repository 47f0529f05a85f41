package horse

type bodyPlaces struct{}

func (bodyPlaces) Words() []string {
	return []string{
		"ears", "poll", "face", "eyes", "mouth", "neck", "shoulder", "withers", "back", "girth", "belly", "flank", "hip", "tail", "foreleg", "hind leg", "feet",
	}
}

// BodyPlace is where on the body something was: a pole, a spray, a hand. The words
// are those of the drawn horse.
type BodyPlace = Word[bodyPlaces]

type works struct{}

func (works) Words() []string { return []string{"shoulder", "hind", "back", "forward", "circle"} }

// Work is what a horse was worked with away from the wanted place (part 4, relief
// place).
type Work = Word[works]

type hurries struct{}

func (hurries) Words() []string { return []string{"jog", "pace"} }

// Hurry is a gait that was not asked for in a walk (part 5, "Rushing").
type Hurry = Word[hurries]

type slopes struct{}

func (slopes) Words() []string { return []string{"flat", "uphill", "downhill"} }

// Slope is the lie of the ground.
type Slope = Word[slopes]

type headings struct{}

func (headings) Words() []string { return []string{"home", "away", "across"} }

// Heading is where it goes, on outings and in ridden work (part 2).
type Heading = Word[headings]
