package e2e

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An owner is invited by a link and has an account of her own: it opens her pages,
// and signs out of them.
func TestAnOwnerIsInvited(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	trainer := y.open(1280, 800).signsInDemo()
	trainer.goes("/people")
	trainer.presses("An owner")
	trainer.field("Owner").MustSelect("Ines Calloway")
	trainer.presses("Make the invitation")
	link := strings.TrimSpace(trainer.finds(".address", "/join#").MustText())

	owner := y.open(412, 800)
	owner.MustNavigate(link)
	owner.seesIn("h1", "Harrow Groundwork invites Ines Calloway")
	owner.types("Your email address", "ines@calloway.example")
	owner.types("A password", "password12")
	owner.presses("Accept")
	owner.seesIn("[role=alert]", "")
	owner.types("A password", "three grey mares at noon")
	owner.presses("Accept")
	owner.seesIn("h1", "Yes, Copperfield Moth is better.")
	owner.presses("Sign out")
	owner.seesIn("h1", "Ivory Bridge")
	owner.MustNavigate(link)
	owner.sees("This invitation does not open.")

	trainer.goes("/people")
	trainer.seesIn("li", "ines@calloway.example")
}

// A helper logs on one day at one yard; when the day ends, so does the account.
func TestAHelpersDayEnds(t *testing.T) {
	t.Parallel()
	y := farYard(t)
	trainer := y.open(1280, 800).signsInDemo()
	trainer.goes("/people")
	trainer.presses("A helper for a day")
	trainer.types("Helper", "Sol")
	trainer.types("Day", y.clock.now().Format(time.DateOnly))
	trainer.field("Yard").MustSelect("Tarn Side Livery")
	trainer.presses("Make the invitation")
	_, token, _ := strings.Cut(trainer.finds(".address", "/join#").MustText(), "#")

	helper := y.open(1280, 800)
	helper.goes("/join#" + strings.TrimSpace(token))
	helper.seesIn("p", "at Tarn Side Livery. You may log what is asked")
	helper.types("Your email address", "sol@example.org")
	helper.types("A password", "three grey mares at noon")
	helper.presses("Accept")
	helper.seesIn("h1", "Horses")
	helper.sees("Copperfield Moth")
	assert.NotContains(t, helper.MustElement("main, #app").MustText(), "Juniper Lantern", "it stands at the other yard")
	helper.presses("Copperfield Moth")
	helper.finds("a", "Into the arena")
	for _, tab := range []string{"Reports", "Progress", "People"} {
		e, err := helper.Page.Timeout(300*time.Millisecond).ElementR("a", "^\\s*"+tab+"\\s*$")
		require.Error(t, err, "%s %v", tab, e)
	}
	y.clock.pass(t, 24*time.Hour)
	helper.goes("/horses")
	helper.sees("You help on one day only")
}
