package exchange

import (
	"encoding/json"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/record"
)

// AsBuiltGeoJSON writes where a line's posts really stand as GeoJSON (RFC 7946), with
// what was measured of each, in metres, and what was met in its hole.
func AsBuiltGeoJSON(p plan.Plan, j job.Job, line int) (Written, error) {
	_, placed, err := onEarth(p, j, line)
	if err != nil {
		return Written{}, err
	}
	if p.Log == nil {
		return Written{}, Refuse("Nothing is written down yet.")
	}
	type object map[string]any
	features := []object{}
	for _, run := range p.Runs[p.Lines[line].First : p.Lines[line].First+p.Lines[line].Runs] {
		for i := range p.Log.Posts {
			o := &p.Log.Posts[i]
			if o.Run != run.ID || run.Length <= 0 {
				continue
			}
			at, _ := o.Stands()
			where := placed(run.Beside(o.Stands()))
			says := object{"name": run.ID + " " + o.Label, "point": "post", "state": o.Stage.Name(), "station": at.Metres(), "measured": o.At != nil || o.Off != nil}
			for name, v := range map[string]*length.Length{"off": o.Off, "depth": o.Depth, "width": o.Width, "plumbAlong": o.Plumb, "plumbAcross": o.Across, "top": o.Top} {
				if v != nil {
					says[name] = v.Metres()
				}
			}
			if o.HitAt != nil {
				says["met"], says["metAt"] = o.Hit, o.HitAt.Metres()
				if o.Hit == job.SeenPipe {
					says["service"] = true
				}
			}
			if o.Stage == record.Nothing {
				says["state"] = "planned"
			}
			features = append(features, object{"type": "Feature", "properties": says,
				"geometry": object{"type": "Point", "coordinates": []json.Number{json.Number(degrees(where.Longitude)), json.Number(degrees(where.Latitude))}}})
		}
	}
	data, err := json.MarshalIndent(object{"type": "FeatureCollection", "features": features}, "", " ")
	return Written{"asbuilt.geojson", "application/geo+json", append(data, '\n')}, err
}
