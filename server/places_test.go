package server_test

import (
	"net/http"
	"strings"
	"testing"

	"mallow/server"
)

// A sheet's code finds its place, also after the address; of jobs whose ids
// begin alike all are told; a job in the bin is not found; nonsense of any size
// is refused.
func TestCodesOverTheAPI(t *testing.T) {
	c := start(t)
	var kept server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+demoDoc(t)+`}`, &kept)
	code := strings.ToUpper(kept.ID[:4])
	var found server.Places
	c.must(200, "GET", "/api/places/"+code+"-S2", "", &found)
	if len(found.Found) != 1 || found.Found[0].Path != "/jobs/"+kept.ID+"/runs/R2/space" {
		t.Errorf("%+v", found)
	}
	c.must(200, "GET", "/api/places/"+code+"-S77", "", &found)
	if len(found.Found) != 1 || found.Found[0].Path != "/jobs/"+kept.ID {
		t.Errorf("a run that is not there: %+v", found)
	}
	for address, to := range map[string]string{"/s/" + code + "-h": "/jobs/" + kept.ID + "/runs/R1/dig", "/s/AAAA-S1": "/?code=AAAA-S1", "/s/%22%3E": "/?code="} {
		status, header, _ := c.ask("GET", address, "")
		if status != http.StatusSeeOther || !strings.HasPrefix(header.Get("Location"), to) {
			t.Errorf("%s: %d to %s", address, status, header.Get("Location"))
		}
	}
	for address, want := range map[string]int{"/api/places/AAAA-S1": 404, "/api/places/poem": 422, "/api/places/" + strings.Repeat("A", 2000): 422, "/api/places/%F0%9F%A6%8A": 422} {
		if status, _, raw := c.ask("GET", address, ""); status != want || !strings.Contains(string(raw), "detail") {
			t.Errorf("%.40s: %d %s", address, status, raw)
		}
	}
	c.must(204, "DELETE", "/api/jobs/"+kept.ID, "", nil)
	if status, _, _ := c.ask("GET", "/api/places/"+code+"-S2", ""); status != 404 {
		t.Errorf("a job in the bin: %d", status)
	}
	// The page of a sheet carries it.
	c.must(204, "POST", "/api/jobs/"+kept.ID+"/undelete", "", nil)
	_, _, svg := c.ask("GET", "/api/jobs/"+kept.ID+"/page.svg?sheet=stakeout&run=R2&page=1", "")
	if !strings.Contains(string(svg), code+"-S2") {
		t.Error("the sheet does not bear its code")
	}
}
