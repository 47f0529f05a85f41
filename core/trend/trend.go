// Package trend says of a row of numbers, one a session, whether they change and
// how sure that is, and of a share between which ends it lies (part 8).
package trend

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/stat/distuv"

	"ivorybridge/core/horse"
)

// A Point is one session's number. X counts the sessions, from 1.
type Point struct {
	X int     `json:"x" doc:"number of the session, from 1"`
	Y float64 `json:"y" doc:"what it noted"`
}

// Least is how many sessions a trend needs (part 8).
const Least = 4

// confidence is that of a trend's interval, both ways; share that of a share's.
const (
	confidence = 0.90
	share      = 0.80
)

// z is how many standard deviations a two-sided interval reaches either way.
func z(confidence float64) float64 { return distuv.UnitNormal.Quantile(0.5 + confidence/2) }

type words struct{}

func (words) Words() []string {
	return []string{"less", "more", "same", "no clear change", "too early to say"}
}

// A Word is what a trend comes to.
type Word = horse.Word[words]

// The five words. What is less is lighter of a level and quicker of a time.
var (
	Less     = horse.MustWord[words]("less")
	More     = horse.MustWord[words]("more")
	Same     = horse.MustWord[words]("same")
	NotClear = horse.MustWord[words]("no clear change")
	TooEarly = horse.MustWord[words]("too early to say")
)

// A Trend is a row of numbers with the line through it.
type Trend struct {
	Points []Point `json:"points" doc:"one for each session that noted it"`
	Word   Word    `json:"word" doc:"what it comes to"`
	Slope  float64 `json:"slope" doc:"change a session, of the number or of its logarithm; 0 while it is too early"`
	Low    float64 `json:"low" doc:"lower end of the slope's interval"`
	High   float64 `json:"high" doc:"its upper end"`
	From   float64 `json:"from" doc:"the line at the first session"`
	To     float64 `json:"to" doc:"the line at the last"`
}

// Sure reports whether the interval leaves no doubt in which direction.
func (t Trend) Sure() bool { return t.Word == Less || t.Word == More || t.Word == Same }

// Over is the number of sessions that the row reaches over.
func (t Trend) Over() int {
	if len(t.Points) == 0 {
		return 0
	}
	return t.Points[len(t.Points)-1].X - t.Points[0].X
}

// OfLevels is the trend of levels: a change counts from one level over all sessions (part 8).
func OfLevels(points []Point) Trend { return of(points, 1) }

// The Least time that is told from another, in seconds, and from which factor a
// change of times counts (part 8).
const (
	floor  = 0.5
	factor = 1.25
)

// OfTimes is the trend of seconds, on their logarithm.
func OfTimes(points []Point) Trend {
	logs := make([]Point, len(points))
	for i, p := range points {
		logs[i] = Point{p.X, math.Log(max(p.Y, floor))}
	}
	t := of(logs, math.Log(factor))
	t.Points = points
	t.From, t.To = math.Exp(t.From), math.Exp(t.To)
	return t
}

// of is the line by the median of all slopes between two points, after Theil and
// Sen, with the interval that the variance of Kendall's S gives its rank: R. O.
// Gilbert, Statistical Methods for Environmental Pollution Monitoring (1987),
// section 16.4. A change counts that comes to much over all sessions.
func of(points []Point, much float64) Trend {
	t := Trend{Points: points, Word: TooEarly}
	if len(points) > 0 {
		t.From, t.To = points[0].Y, points[len(points)-1].Y
	}
	slopes := slopesOf(points)
	if len(points) < Least || len(slopes) == 0 {
		return t
	}
	t.Slope = (slopes[(len(slopes)-1)/2] + slopes[len(slopes)/2]) / 2 // they are sorted
	t.Low, t.High = interval(slopes, varianceOfS(points))
	offsets := make([]float64, len(points))
	for i, p := range points {
		offsets[i] = p.Y - t.Slope*float64(p.X)
	}
	at := horse.Median(offsets)
	over := float64(t.Over())
	t.From, t.To = at+t.Slope*float64(points[0].X), at+t.Slope*float64(points[len(points)-1].X)
	switch change := math.Abs(t.Slope) * over; {
	case t.High < 0 && change >= much:
		t.Word = Less
	case t.Low > 0 && change >= much:
		t.Word = More
	case t.Low*over >= -much && t.High*over <= much:
		t.Word = Same
	default:
		t.Word = NotClear
	}
	return t
}

// slopesOf are the slopes between each two points of other sessions, sorted.
func slopesOf(points []Point) []float64 {
	var slopes []float64
	for i, a := range points {
		for _, b := range points[i+1:] {
			if a.X != b.X {
				slopes = append(slopes, (b.Y-a.Y)/float64(b.X-a.X))
			}
		}
	}
	slices.Sort(slopes)
	return slopes
}

// interval takes the slopes whose ranks are (N−C)/2 and (N+C)/2+1, rounded, where C
// is so many standard deviations of S.
func interval(slopes []float64, variance float64) (low, high float64) {
	n := float64(len(slopes))
	c := z(confidence) * math.Sqrt(variance)
	at := func(rank float64) float64 {
		return slopes[min(max(int(math.Round(rank)), 1), len(slopes))-1]
	}
	return at((n - c) / 2), at((n+c)/2 + 1)
}

// varianceOfS is that of Kendall's S, corrected for ties in either direction.
func varianceOfS(points []Point) float64 {
	xs, ys := map[float64]int{}, map[float64]int{}
	for _, p := range points {
		xs[float64(p.X)]++
		ys[p.Y]++
	}
	n := float64(len(points))
	sums := func(ties map[float64]int) (a, b, c float64) {
		for _, t := range ties {
			n := float64(t)
			a += n * (n - 1) * (2*n + 5)
			b += n * (n - 1) * (n - 2)
			c += n * (n - 1)
		}
		return a, b, c
	}
	ax, bx, cx := sums(xs)
	ay, by, cy := sums(ys)
	return (n*(n-1)*(2*n+5)-ax-ay)/18 + bx*by/(9*n*(n-1)*(n-2)) + cx*cy/(2*n*(n-1))
}

// A Share is how many of some, with the ends between which it lies.
type Share struct {
	Of   int     `json:"of" doc:"of how many"`
	Some int     `json:"some" doc:"how many"`
	Low  float64 `json:"low" doc:"0 to 1"`
	High float64 `json:"high" doc:"0 to 1"`
}

// ShareOf is a share with its 80 % interval by E. B. Wilson, Journal of the American
// Statistical Association 22 (1927); of none nothing is known.
func ShareOf(some, of int) Share {
	s := Share{Of: of, Some: some, High: 1}
	if of == 0 {
		return s
	}
	n, p, q := float64(of), float64(some)/float64(of), z(share)
	middle, half := p+q*q/(2*n), q*math.Sqrt(p*(1-p)/n+q*q/(4*n*n))
	s.Low, s.High = max(0, (middle-half)/(1+q*q/n)), min(1, (middle+half)/(1+q*q/n))
	return s
}
