package server

import (
	"context"
	"net/http"
	"strconv"
	"time"

	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// metrics are counted only when they are asked for; nil counts nothing.
type metrics struct {
	registry *prometheus.Registry
	requests *prometheus.HistogramVec
	plans    *prometheus.HistogramVec
	panics   prometheus.Counter
}

func newMetrics(s *Server) *metrics {
	m := &metrics{
		registry: prometheus.NewRegistry(),
		requests: prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "mallow_request_seconds", Help: "Time to answer, by address and status.",
			Buckets: prometheus.ExponentialBuckets(0.001, 2, 15)}, []string{"method", "path", "status"}),
		plans: prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "mallow_plan_seconds", Help: "Time to plan, by what was asked.",
			Buckets: prometheus.ExponentialBuckets(0.001, 2, 15)}, []string{"what"}),
		panics: prometheus.NewCounter(prometheus.CounterOpts{Name: "mallow_panics_total", Help: "Panics that were caught."}),
	}
	gauge := func(name, help string, of func() float64) prometheus.Collector {
		return prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: name, Help: help}, of)
	}
	m.registry.MustRegister(m.requests, m.plans, m.panics, collectors.NewGoCollector(), collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
		gauge("mallow_plans_waiting", "Requests in line for the planner.", func() float64 { return float64(s.gate.waiting.Load()) }),
		gauge("mallow_listeners", "Windows that listen for changes.", func() float64 { return float64(s.live.count()) }),
		gauge("mallow_database_bytes", "Size of the database, without its log.", func() float64 {
			ctx, stop := context.WithTimeout(s.running, time.Second)
			defer stop()
			n, err := s.Store.Bytes(ctx)
			if err != nil {
				return -1
			}
			return float64(n)
		}))
	if s.Replica != nil {
		m.registry.MustRegister(
			gauge("mallow_replica_ok", "1 while the second copy takes what is saved.", func() float64 {
				if s.Replica.Look().Wrong != "" {
					return 0
				}
				return 1
			}),
			gauge("mallow_replica_age_seconds", "How long ago the second copy last had all that was saved; -1: not since the start.", func() float64 {
				if held := s.Replica.Look().Held; held != nil {
					return time.Since(*held).Seconds()
				}
				return -1
			}))
	}
	m.registry.MustRegister(gauge("mallow_files_waiting", "Requests in line for files.", func() float64 { return float64(s.files.waiting.Load()) }))
	return m
}

func (m *metrics) answered(method, path string, status int, took time.Duration) {
	if m != nil {
		m.requests.WithLabelValues(method, path, strconv.Itoa(status)).Observe(took.Seconds())
	}
}

func (m *metrics) planned(what string, took time.Duration) {
	if m != nil {
		m.plans.WithLabelValues(what).Observe(took.Seconds())
	}
}

func (m *metrics) panicked() {
	if m != nil {
		m.panics.Inc()
	}
}

// Metrics serves what is counted, in the Prometheus text format. It is for a
// listener of its own that only this machine reaches.
func (s *Server) Metrics() http.Handler {
	if s.metrics == nil {
		return http.NotFoundHandler()
	}
	return promhttp.HandlerFor(s.metrics.registry, promhttp.HandlerOpts{})
}
