package materials

import (
	"errors"
	"fmt"
	"reflect"

	"mallow/core/length"
	"mallow/core/reason"
)

// Soil is a class of soil, as the published bearing table divides them.
type Soil struct {
	ID           string        `json:"id" jsonschema:"required"`
	Name         string        `json:"name" jsonschema:"required"`
	Says         string        `json:"says" jsonschema:"required"`
	Bearing      float64       `json:"bearing" jsonschema:"required" jsonschema_description:"Lateral bearing, pounds per square foot for each foot of depth."`
	Bulking      float64       `json:"bulking" jsonschema:"required" jsonschema_description:"By what fraction it grows when it is dug."`
	Digging      float64       `json:"digging" jsonschema:"required" jsonschema_description:"How long it takes to dig, against easy soil."`
	Density      float64       `json:"density" jsonschema:"required" jsonschema_description:"Dry, kilograms per cubic metre."`
	Moisture     float64       `json:"moisture" jsonschema:"required" jsonschema_description:"Water, per cent of the dry weight."`
	Conductivity float64       `json:"conductivity" jsonschema:"required" jsonschema_description:"Watts per metre and kelvin, between frozen and not."`
	Source       reason.Source `json:"source" jsonschema:"required"`
}

// Supply is how concrete, gravel and digging are bought and counted.
type Supply struct {
	Crew        CrewRate                 `json:"crew" jsonschema:"required"`
	Truck       Truck                    `json:"truck" jsonschema:"required"`
	Mix         Mix                      `json:"mix" jsonschema:"required"`
	GravelBags  map[length.System]Parcel `json:"gravelBags" jsonschema:"required"`
	BulkBags    map[length.System]Parcel `json:"bulkBags" jsonschema:"required"`
	Voids       float64                  `json:"voids" jsonschema:"required" jsonschema_description:"Share of a layer of rocks that is room between them."`
	Leaf        float64                  `json:"leaf" jsonschema:"required" jsonschema_description:"Mass of a gate leaf where it is not known, kilograms for each square metre."`
	PinStrength float64                  `json:"pinStrength" jsonschema:"required" jsonschema_description:"Shear that a steel pin is counted with, newtons for each square millimetre."`
}

// CrewRate is how fast holes are dug in easy soil.
type CrewRate struct {
	Hand   float64       `json:"hand" jsonschema:"required" jsonschema_description:"Cubic metres an hour that one person digs by hand."`
	Auger  length.Length `json:"auger" jsonschema:"required" jsonschema_description:"Depth an hour by auger."`
	Setup  float64       `json:"setup" jsonschema:"required" jsonschema_description:"Minutes at each hole to set the auger up."`
	Source reason.Source `json:"source" jsonschema:"required"`
}

// Truck is how mixed concrete is ordered.
type Truck struct {
	Imperial Order         `json:"imperial" jsonschema:"required"`
	Metric   Order         `json:"metric" jsonschema:"required"`
	Source   reason.Source `json:"source" jsonschema:"required"`
}

// Order is the step in which a truck is ordered, and the load under which a
// charge for a short load is usual.
type Order struct {
	Step  length.Volume `json:"step" jsonschema:"required"`
	Short length.Volume `json:"short" jsonschema:"required"`
}

// In is the order in a system's units.
func (t Truck) In(s length.System) Order {
	if s == length.Metric {
		return t.Metric
	}
	return t.Imperial
}

// Mix is concrete mixed on site, by volume.
type Mix struct {
	Cement  float64                     `json:"cement" jsonschema:"required"`
	Sand    float64                     `json:"sand" jsonschema:"required"`
	Stone   float64                     `json:"stone" jsonschema:"required"`
	Dry     float64                     `json:"dry" jsonschema:"required" jsonschema_description:"Loose dry volume for one of concrete in place."`
	Water   float64                     `json:"water" jsonschema:"required" jsonschema_description:"Mass of water for one of cement."`
	Density float64                     `json:"density" jsonschema:"required" jsonschema_description:"Of loose cement, kilograms per cubic metre."`
	Bags    map[length.System]CementBag `json:"bags" jsonschema:"required" jsonschema_description:"Bags of cement: name and mass."`
	Source  reason.Source               `json:"source" jsonschema:"required"`
}

// CementBag is a bag of cement.
type CementBag struct {
	Name string      `json:"name" jsonschema:"required"`
	Mass length.Mass `json:"mass" jsonschema:"required"`
}

// Parcel is what gravel is bought in.
type Parcel struct {
	Name   string        `json:"name" jsonschema:"required"`
	Volume length.Volume `json:"volume" jsonschema:"required"`
}

// unknownSoil is what is taken where the soil is not known: the weakest.
const unknownSoil = "clay"

// Soil finds a soil by its name in the catalogue, or the one that is taken
// where it is not known; known tells which.
func (c Catalog) Soil(id string) (s Soil, known bool) {
	for _, k := range c.Soils {
		if k.ID == id {
			return k, true
		}
		if k.ID == unknownSoil {
			s = k
		}
	}
	return s, false
}

func (c Catalog) validateDigging() error {
	seen := map[string]bool{}
	for _, s := range c.Soils {
		if s.ID == "" || seen[s.ID] || s.Bearing <= 0 || s.Bulking < 0 || s.Bulking > 1 || s.Digging <= 0 || s.Density <= 0 || s.Moisture <= 0 || s.Conductivity <= 0 || s.Source.Kind == "" {
			return fmt.Errorf("soil %q: id, bearing, bulking, digging, density, moisture, conductivity or source is wrong", s.ID)
		}
		seen[s.ID] = true
	}
	if !seen[unknownSoil] {
		return fmt.Errorf("no soil %q, which is taken where it is not known", unknownSoil)
	}
	s := c.Supply
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		if s.GravelBags[sys].Volume <= 0 || s.BulkBags[sys].Volume <= 0 || s.Mix.Bags[sys].Mass <= 0 || s.Truck.In(sys).Step <= 0 {
			return fmt.Errorf("supply: %s bags or truck are missing", sys)
		}
		if missing := unsaid(c.Usual[sys]); missing != "" {
			return fmt.Errorf("usual %s rules: nothing is said of %s", sys, missing)
		}
	}
	if m := s.Mix; m.Cement <= 0 || m.Sand <= 0 || m.Stone <= 0 || m.Dry < 1 || m.Water <= 0 || m.Density <= 0 {
		return errors.New("supply: the site mix is wrong")
	}
	if k := s.Crew; k.Hand <= 0 || k.Auger <= 0 || k.Setup < 0 || s.Voids <= 0 || s.Voids >= 1 || s.Leaf <= 0 || s.PinStrength <= 0 {
		return errors.New("supply: crew rates, voids, leaf or pin strength are wrong")
	}
	return nil
}

// unsaid names a rule that the usual ones leave out: there is no level
// farther out to say it.
func unsaid(u UsualJob) string {
	free := map[string]bool{"Width": true, "Depth": true, "FillTo": true, "Entered": true}
	for _, v := range []reflect.Value{reflect.ValueOf(u.Hole), reflect.ValueOf(u.Setting)} {
		for i := range v.NumField() {
			if name := v.Type().Field(i).Name; v.Field(i).IsNil() && !free[name] {
				return name
			}
		}
	}
	return ""
}
