package e2e

// section goes to a section of the walk.
func (u *user) section(key string) {
	u.t.Helper()
	u.finds(".section", "^"+key+" ").MustClick()
	u.seesIn("h2", key+". ")
}

// item opens a body item from the list beside the outline.
func (u *user) item(name string) {
	u.t.Helper()
	u.finds("button.item", "^"+name).MustClick()
	u.finds("section[aria-label^='"+name+"']", ".")
}
