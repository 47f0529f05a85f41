package server

import (
	"context"
	"encoding/json"
	"image/color"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/homework"
	"ivorybridge/server/api"
	"ivorybridge/server/horses"
	"ivorybridge/server/visits"
	"ivorybridge/store"
)

// callers are those who may stand at the door, in the order of a row's letters.
var callers = []string{"nobody", "newcomer", "owner", "helper at another yard", "helper", "assistant", "lead trainer", "lead trainer of another practice"}

// access says of every operation who may call it: y is let in, n is not signed in,
// f may not, h is told that what was asked for is not there. What a row names
// belongs to the first practice.
var access = map[string]string{
	"health": "yyyyyyyy", "greeting": "yyyyyyyy", "signIn": "yyyyyyyy", "signInDemo": "hhhhhhhh",
	"me": "nyyyyyyy", "changePassword": "nyyyyyyy", "signOut": "nyyyyyyy", "signOutEverywhere": "nyyyyyyy",

	"invitations": "nfffffyy", "inviteByLink": "nfffffyy", "takeBackInvitation": "nfffffyh", "welcome": "hhhhhhhh", "join": "hhhhhhhh",
	"signIns": "nfffffyy", "endSignIn": "nfffffyh", "record": "nfffffyy",
	"users": "nfffffyy", "invite": "nfffffyy", "activateUser": "nfffffyh", "resetUser": "nfffffyh", "door": "nfffffyy",

	"house": "nffffyyy", "houseRules": "nffffyyy", "tryHouseRules": "nfffffyy", "changeHouseRules": "nfffffyy", "copyNow": "nfffffyy", "houseHome": "nffffyyy", "changeHome": "nfffffyy", "erasePerson": "nfffffyh",
	"horseArchive": "nfffffyh", "personArchive": "nfffffyh", "practiceArchive": "nfffffyy", "takeIn": "nfffffyy", "takingIn": "nfffffyy",
	"notebooks": "nfffffyy", "lookAtNotebook": "nfffffyy", "takeNotebook": "nfffffyy", "undoNotebook": "nfffffhh", "notebookOf": "nffffyyh", "guide": "nffyyyyy", "guidePicture": "nffyyyyy",

	"anAssessment": "nffffyyh", "assessment": "nffffyyh", "mark": "nffffyyh",
	"caseload": "nffyyyyy", "changeCase": "nffffyyh", "clearance": "nffffyyh", "gate": "nffhyyyh", "homework": "nffffyyh",
	"plan": "nffffyyh", "tryPlan": "nffffyyh", "makePlan": "nffffyyh", "rehearse": "nffffyyh",
	"sessionStart": "nffhyyyh", "progress": "nffffyyh", "startSession": "nffhyyyh", "sessions": "nffffyyh", "session": "nffhyyyh", "asks": "nffhyyyh",
	"log": "nffhyyyh", "report": "nffffyyh", "reportPDF": "nffffyyh", "closing": "nffffyyh", "wordClosing": "nffffyyh", "closingPDF": "nffffyyh", "wholeFile": "nffffyyh", "wholeFilePDF": "nffffyyh", "wordReport": "nffffyyh", "summary": "nffhyyyh", "dropSession": "nffhyyyh", "reports": "nffffyyh",
	"takeOn": "nffffyyy", "horse": "nffhyyyh", "changeHorse": "nffffyyh", "addHandler": "nffffyyh", "removeHandler": "nffffyyh", "letter": "nffffyyh",
	"photographs": "nffffyyh", "addPhotograph": "nffffyyh", "picture": "nffffyyh", "removePhotograph": "nffffyyh", "consent": "nffffyyh",
	"people": "nffffyyy", "addPerson": "nffffyyy", "changePerson": "nffffyyh", "yards": "nffffyyy", "addYard": "nffffyyy", "changeYard": "nffffyyh",
	"trailers": "nffffyyy", "addTrailer": "nffffyyy", "changeTrailer": "nffffyyh",
	"practice": "nffyyyyy", "setPhone": "nfffffyy",
	"ownAsks": "nffyyyyy", "catalog": "nffyyyyy", "methods": "nffyyyyy", "handbook": "nffyyyyy", "problems": "nffyyyyy", "tick": "nffyyyyy",
	"incidents": "nffhyyyh", "addIncident": "nffhyyyh", "setAside": "nffffyyh", "linksOfPerson": "nffffyyh", "linkPerson": "nffffyyh", "linksOfReport": "nffffyyh", "linkReport": "nffffyyh", "switchLinkOff": "nffffyyh", "sendReport": "nffffyyh",
	"practised": "nffffyyh", "resumeHomework": "nffffyyh", "ownerPages": "hhhhhhhh", "sendPhotograph": "hhhhhhhh", "practise": "hhhhhhhh",
	"diary": "nffffyyy", "addVisit": "nffffyyy", "changeVisit": "nffffyyh", "cancelVisit": "nffffyyh", "tellVisit": "nffffyyh", "horseVisits": "nffffyyh",
	"feeds": "nffffyyy", "makeFeed": "nffffyyy", "switchFeedOff": "nffffhyh", "setBusy": "nffffyyy", "calendar": "hhhhhhhh", "visitICS": "nffffyyh",
	"day": "nffffyyy", "outings": "nffffyyy", "horseOutings": "nffhyyyh", "orderDay": "nffffyyh", "roads": "nffffyyy", "setDrive": "nffffyyh", "placeYard": "nffffyyh", "setMyDay": "nffffyyy",
	"letters": "nffffyyy", "addReader": "nffffyyy", "stopReader": "nffffyyh", "writeLetters": "nffffyyy", "stopPage": "hhhhhhhh", "stopLetters": "hhhhhhhh",
	"clips": "nffffyyh", "clip": "nffffyyh", "changeClip": "nffffyyh", "removeClip": "nffffyyh", "markClip": "nffffyyh", "unmarkClip": "nffffhhh", "film": "nffffyyh", "filmList": "nffffyyh", "ownFilmList": "hhhhhhhh",
	"beginClip": "nffffyyy", "seekClip": "nffffhhh", "sendClip": "nffffhhh", "dropClip": "nffffhhh",
	"beginOwnClip": "hhhhhhhh", "seekOwnClip": "hhhhhhhh", "sendOwnClip": "hhhhhhhh", "dropOwnClip": "hhhhhhhh",
	"copyLadder": "nfffffyy", "changeLadder": "nfffffyh",
	"ladderFile": "nffyyyyy", "ladderSchema": "nffyyyyy", "ownLadderFile": "nffffyyh", "takeLadder": "nfffffyy", "takeLadderAgain": "nfffffyh",
}

// An operation as the API's description tells it.
type operation struct {
	id, method, path string
}

// described lists all operations, those that take something away last.
func (p *practice) described() []operation {
	text, err := p.OpenAPI()
	require.NoError(p.t, err)
	var doc struct {
		Paths map[string]map[string]struct {
			ID string `json:"operationId"`
		} `json:"paths"`
	}
	require.NoError(p.t, json.Unmarshal(text, &doc))
	var list []operation
	for path, methods := range doc.Paths {
		for method, op := range methods {
			list = append(list, operation{op.ID, strings.ToUpper(method), path})
		}
	}
	takes := func(o operation) int {
		return 1 + slices.Index([]string{"DELETE"}, o.method) + 2*(1+slices.Index([]string{"signOut", "signIn", "signOutEverywhere", "resetUser", "changePassword"}, o.id))
	}
	slices.SortFunc(list, func(a, b operation) int { return 1000*(takes(a)-takes(b)) + strings.Compare(a.id, b.id) })
	return list
}

// comesAs signs somebody in without a password.
func (p *practice) comesAs(practice, user string) {
	p.cookie = nil
	if user == "" {
		return
	}
	token := uuid.NewString()
	actor := store.Actor{Practice: practice, User: user, At: p.now.UnixMilli()}
	require.NoError(p.t, p.Store.AddSignIn(context.Background(), actor, api.TokenHash(token), "test", "", p.now.Add(api.SignInLasts).UnixMilli()))
	p.cookie = &http.Cookie{Name: "ivorybridge", Value: token}
}

// everything is a practice with one of each thing that can be asked for, by the
// first word of its path.
func everything(t *testing.T) (*practice, map[string]string) {
	p := newPractice(t)
	p.add("ash", store.Assistant, false)
	lead, horse, kase, owner := p.actor, p.horse, p.kase, p.owner
	p.comesAs(lead.Practice, lead.User)
	session, _ := p.session()
	p.logs(session, rep("accepted", 3))
	dropped, _ := p.session()
	p.agrees()
	var photos horses.Photographs
	p.ask(http.MethodPost, "/api/horses/"+horse+"/photographs", drawn(t, "png", color.White)).into(&photos)
	of := uuid.NewString()
	p.marks(of, "tack/bit", "gag", "body/back/state", "suspect")
	var handled horses.Horse
	p.ask(http.MethodPost, "/api/horses/"+horse+"/handlers", map[string]any{"kind": "other", "name": "Tam"}).into(&handled)
	made := func(path string, body any) string {
		var a struct {
			ID string `json:"id"`
		}
		p.ask(http.MethodPost, path, body).into(&a)
		return a.ID
	}
	users, err := p.Store.Users(context.Background(), lead.Practice)
	require.NoError(t, err)
	ash := users[slices.IndexFunc(users, func(u store.User) bool { return u.Name == "ash" })].ID
	ids := map[string]string{
		"horses": horse, "cases": kase, "people": owner, "sessions": session, "dropSession": dropped, "assessments": of, "photographs": photos.List[0].ID,
		"yards": made("/api/yards", map[string]any{"name": "Tarn Side"}), "trailers": made("/api/trailers", map[string]any{"name": "old", "record": map[string]any{}}),
		"ladders": made("/api/ladders", map[string]any{"ladder": "load", "name": "ours", "reason": "why", "version": 0}), "users": ash, "handler": handled.Handlers[0].ID,
	}
	p.ask(http.MethodPost, "/api/sessions/"+session+"/links", map[string]any{})
	links, err := p.Store.Links(context.Background(), lead.Practice, "", session)
	require.NoError(t, err)
	ids["links"] = links[0].ID
	invitation := store.Invitation{ID: uuid.NewString(), Name: "Ines", Person: owner, Until: p.now.Add(time.Hour).UnixMilli()}
	require.NoError(t, p.Store.AddInvitation(context.Background(), lead, invitation, api.TokenHash("an invitation")))
	ids["invitations"] = invitation.ID
	someone := store.Actor{Practice: lead.Practice, User: lead.User, At: p.now.UnixMilli()}
	require.NoError(t, p.Store.AddSignIn(context.Background(), someone, api.TokenHash("a sign-in"), "phone", "", p.now.Add(time.Hour).UnixMilli()))
	signIns, err := p.Store.SignIns(context.Background(), lead.Practice, p.now.UnixMilli())
	require.NoError(t, err)
	ids["sign-ins"] = signIns[slices.IndexFunc(signIns, func(i store.SignIn) bool { return i.Device == "phone" })].ID
	practised := store.Practised{Log: homework.Log{ID: uuid.NewString(), Person: owner, Step: "lead.back", On: "2026-06-01"}, HorseID: horse}
	require.NoError(t, p.Store.AddPractised(context.Background(), lead.Practice, practised))
	ids["practised"] = practised.ID
	var visit visits.VisitKept
	p.ask(http.MethodPost, "/api/visits", map[string]any{"horses": []string{horse}, "on": "2026-06-02", "minutes": 45, "agreed": true}).into(&visit)
	ids["visits"] = visit.Visit.ID
	ids["feeds"] = made("/api/feeds", map[string]any{})
	p.agrees()
	id := p.line().filmed(aFilm(100))
	ids["clips"] = id
	ids["letters"] = uuid.NewString()
	require.NoError(t, p.Store.AddReader(context.Background(), lead, store.Reader{ID: ids["letters"], Person: owner, Stop: uuid.NewString()}))
	ids["erasePerson"] = made("/api/people", map[string]any{"kind": "owner", "name": "Bo"})
	ids["notebooks"] = uuid.NewString()
	ids["near yard"] = made("/api/yards", map[string]any{"name": "Near"})
	return p, ids
}

// helps makes two helpers of today: at the yard of the horse, and at another.
func (p *practice) helps(ids map[string]string, user func(string) string) {
	ctx := context.Background()
	var h horses.Horse
	p.ask(http.MethodGet, "/api/horses/"+ids["horses"], nil).into(&h)
	p.ask(http.MethodPut, "/api/horses/"+ids["horses"], map[string]any{"name": h.Name, "record": h.Record, "yard_id": ids["yards"], "version": h.Version}).into(&h)
	var far struct {
		ID string `json:"id"`
	}
	p.ask(http.MethodPost, "/api/yards", map[string]any{"name": "Elsewhere"}).into(&far)
	for name, yard := range map[string]string{"near": ids["yards"], "far": far.ID} {
		i := store.Invitation{ID: uuid.NewString(), Name: name, On: "2026-06-01", YardID: yard, Until: p.now.Add(time.Hour).UnixMilli()}
		require.NoError(p.t, p.Store.AddInvitation(ctx, p.actor, i, api.TokenHash(name)))
		ids[name] = uuid.NewString()
		require.NoError(p.t, p.Store.Accept(ctx, i, p.actor.Practice, store.User{ID: ids[name], Email: name + "@example.org", Hash: hash}, p.now.UnixMilli()))
	}
}

// A new operation has no row here, and so fails, until somebody has said who may
// call it.
func TestWhoMayCallWhat(t *testing.T) {
	known := map[string]bool{}
	for i, who := range callers {
		t.Run(who, func(t *testing.T) {
			p, ids := everything(t)
			p.add("new", store.Assistant, true)
			p.add("ines", store.Owner, false)
			p.add("beck", store.Assistant, false)
			users, err := p.Store.Users(context.Background(), p.actor.Practice)
			require.NoError(t, err)
			user := func(name string) string {
				return users[slices.IndexFunc(users, func(u store.User) bool { return u.Name == name })].ID
			}
			p.helps(ids, user)
			practice, as := p.actor.Practice, [...]string{"", user("new"), user("ines"), ids["far"], ids["near"], user("beck"), p.actor.User, ""}[i]
			if i == 7 {
				other := p.fill("Other")
				practice, as = other.Practice, other.User
			}
			for _, op := range p.described() {
				known[op.id] = true
				want, there := access[op.id]
				if !assert.True(t, there, "say of %s who may call it", op.id) {
					continue
				}
				p.comesAs(practice, as)
				first := strings.Split(strings.TrimPrefix(op.path, "/api/"), "/")[0]
				id := ids[first]
				if op.id == "dropSession" || op.id == "erasePerson" {
					id = ids[op.id]
				}
				key := map[string]string{"letter": "back", "tick": "trailer"}[op.id]
				path := strings.NewReplacer("{id}", id, "{of}", ids["assessments"], "{key}", key, "{person}", ids["handler"], "{part}", map[bool]string{true: "day", false: "README"}[op.id == "guidePicture"], "{mark}", uuid.NewString()).Replace(op.path)
				if op.id == "homework" {
					path = strings.Replace(path, ids["assessments"], ids["people"], 1)
				}
				a := p.ask(op.method, path, p.bodyFor(op, ids))
				got := map[int]string{401: "n", 403: "f", 404: "h"}[a.Code]
				if got == "" && a.Code < 500 {
					got = "y"
				}
				assert.Equal(t, string(want[i]), got, "%s %s %s: %d %s", op.id, op.method, path, a.Code, a.Body)
			}
		})
	}
	for id := range access {
		assert.True(t, known[id], "%s is no operation any more", id)
	}
}

// bodyFor is a body that the operation takes.
func (p *practice) bodyFor(op operation, ids map[string]string) any {
	switch op.id {
	case "signIn":
		return map[string]string{"email": "Wren@example.org", "password": password}
	case "changePassword":
		return map[string]string{"old": password, "new": "another rope of words"}
	case "addPhotograph":
		return drawn(p.t, "png", color.Black)
	case "takeOn":
		return intake(nil)
	case "invite":
		return map[string]any{"name": "x", "email": uuid.NewString() + "@example.org", "role": "assistant"}
	case "copyLadder":
		return map[string]any{"ladder": "feet", "name": "x", "reason": "why", "version": 0}
	case "takeLadder", "takeLadderAgain":
		return map[string]any{"text": "ladder: moon", "version": 0}
	case "changeLadder":
		return map[string]any{"name": "x", "reason": "why", "version": 1}
	case "setPhone":
		return map[string]any{"phone": "1"}
	case "inviteByLink":
		return map[string]any{"name": "Sol", "on": "2026-06-01", "yard": ids["yards"]}
	case "welcome":
		return map[string]any{"token": "x"}
	case "join":
		return map[string]any{"token": "x", "email": "x@example.org", "password": "another rope of words"}
	case "addIncident":
		return map[string]any{"kind": "bit", "on": "2026-06-01", "hurt": "nobody", "what": "Bit at the gate."}
	case "setAside":
		return map[string]any{"note": "attention.not_begun", "until": "2026-06-08", "reason": "away"}
	case "resumeHomework":
		return map[string]any{"log": ids["practised"], "reason": "I was there"}
	case "linkPerson", "linkReport":
		return map[string]any{"days": 3}
	case "addVisit":
		return map[string]any{"horses": []string{ids["horses"]}, "on": "2026-06-02", "minutes": 45, "agreed": true}
	case "changeVisit":
		return map[string]any{"horses": []string{ids["horses"]}, "on": "2026-06-02", "minutes": 45, "agreed": true, "version": 1}
	case "cancelVisit":
		return map[string]any{"reason": "ice", "version": 2}
	case "orderDay":
		return map[string]any{"on": "2026-06-02", "visits": []string{ids["visits"]}, "by_hand": true}
	case "setDrive":
		return map[string]any{"a": ids["yards"], "b": ids["near yard"], "minutes": 12}
	case "placeYard":
		return map[string]any{"yard": ids["yards"], "place": "54.5, -3.1"}
	case "rehearse":
		return map[string]any{"person": ids["people"], "step": "lead.back", "on": "2026-06-01", "place": "person"}
	case "lookAtNotebook", "takeNotebook":
		return map[string]any{"name": "x", "text": "horse,date\nMoth,2020-01-01"}
	case "tryHouseRules":
		return map[string]any{}
	case "changeHouseRules":
		return map[string]any{"doc": map[string]any{}, "reason": "why", "version": 0}
	case "addTrailer", "addYard":
		return map[string]any{"name": uuid.NewString(), "record": map[string]any{}}
	}
	return validBody([2]string{op.method, op.path})
}
