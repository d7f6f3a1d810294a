// SPDX-License-Identifier: GPL-3.0-or-later
//! kranich-bench: stands in for devices of the bench, so that everything can be tried without them. It opens
//! a pseudo terminal, prints its path, and sends the lines of docs/bench-protocol.md there until it is ended.
#include <fcntl.h>
#include <poll.h>
#include <stdlib.h>
#include <termios.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <chrono>
#include <cmath>
#include <csignal>
#include <cstdio>
#include <random>
#include <string>
#include <thread>

#include "core/assess/assess.h"
#include "core/assess/drive_state.h"
#include "core/assess/landing_state.h"
#include "core/assess/standing.h"
#include "core/io/bench_line.h"
#include "core/io/project_file.h"
#include "core/io/rig_csv.h"
#include "core/sequence/player.h"

namespace {

using namespace kranich;

volatile std::sig_atomic_t ended = 0;

//! The other end of a serial line.
class Terminal {
 public:
  Terminal() : fd_(posix_openpt(O_RDWR | O_NOCTTY)) {
    if (fd_ < 0 || grantpt(fd_) != 0 || unlockpt(fd_) != 0) return;
    path_ = ptsname(fd_);
    // Kept open from this side too: without a reader the lines would be lost and the writer told so.
    peer_ = open(path_.c_str(), O_RDWR | O_NOCTTY);
    termios t{};
    if (peer_ >= 0 && tcgetattr(peer_, &t) == 0) {
      cfmakeraw(&t);
      tcsetattr(peer_, TCSANOW, &t);
    }
    fcntl(fd_, F_SETFL, O_NONBLOCK);
  }
  ~Terminal() {
    if (peer_ >= 0) close(peer_);
    if (fd_ >= 0) close(fd_);
  }
  Terminal(const Terminal&) = delete;
  Terminal& operator=(const Terminal&) = delete;
  bool ok() const { return !path_.empty() && peer_ >= 0; }
  //! Prints where it is to be heard, or that it cannot be.
  bool announced() const {
    if (!ok()) {
      std::fprintf(stderr, "kranich-bench: no pseudo terminal can be had\n");
      return false;
    }
    std::printf("%s\n", path_.c_str());
    std::fflush(stdout);
    return true;
  }
  //! A full line buffer (nobody reads) drops the line, as a device's would.
  void send(const BenchLine& line) {
    const std::string text = format_bench_line(line) + "\r\n";
    if (write(fd_, text.data(), text.size()) < 0) return;
  }
  //! What the reader sent meanwhile, whole lines.
  std::string received() {
    char buffer[256];
    const auto n = read(fd_, buffer, sizeof buffer);
    return n > 0 ? std::string(buffer, static_cast<size_t>(n)) : std::string();
  }

 private:
  int fd_ = -1, peer_ = -1;
  std::string path_;
};

//! The lines that a reader sends.
class Heard {
 public:
  explicit Heard(Terminal& terminal) : terminal_(terminal) {}
  //! Gives each that has come in to `obey`; how many could not be read or were not obeyed.
  template <class Obey>
  int each(Obey&& obey) {
    int refused = 0;
    bytes_ += terminal_.received();
    if (bytes_.size() > 100000) bytes_.clear();  // noise without a line's end
    for (size_t end = bytes_.find('\n'); end != std::string::npos; end = bytes_.find('\n')) {
      const auto line = parse_bench_line(bytes_.substr(0, end));
      bytes_.erase(0, end + 1);
      const auto* good = std::get_if<BenchLine>(&line);
      if (!good || !obey(*good)) ++refused;
    }
    return refused;
  }

 private:
  Terminal& terminal_;
  std::string bytes_;
};

struct ScalesOptions {
  std::vector<std::string> on{"third=102.3", "port=169.4", "starboard=170.5"};
  double noise = 0.05, drift = 0.02, rate = 5;
  unsigned seed = 1;
};

//! Wheel scales, any number: readings with noise, a slow drift of each, and a few seconds until they settle.
int run_scales(const ScalesOptions& o) {
  struct Scale {
    std::string name;
    double load, start, tare = 0, shown = 0;
  };
  std::vector<Scale> scales;
  std::mt19937 random(o.seed);
  std::normal_distribution<double> noise(0, o.noise);
  std::uniform_real_distribution<double> phase(0, 6.28);
  for (const auto& given : o.on) {
    const auto equals = given.find('=');
    char* end = nullptr;
    const double load = equals == std::string::npos ? 0 : std::strtod(given.c_str() + equals + 1, &end);
    if (equals == 0 || equals == std::string::npos || !end || *end || !std::isfinite(load) ||
        given.find(' ') != std::string::npos) {
      std::fprintf(stderr, "kranich-bench: --on %s: must be NAME=KG, as in nose=102.3\n", given.c_str());
      return 3;
    }
    scales.push_back({given.substr(0, equals), load, phase(random)});
  }
  Terminal terminal;
  if (!terminal.announced()) return 4;
  const auto began = std::chrono::steady_clock::now();
  while (!ended) {
    const double t = std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
    BenchLine line{"SCALES", {{"steady", t > 2.5 ? 1.0 : 0.0}}};
    const bool taring = terminal.received().find("TARE") != std::string::npos;
    for (size_t i = 0; i < scales.size(); ++i) {
      Scale& s = scales[i];
      const double settling = 1 - 0.4 * std::exp(-2.5 * t) * std::cos(9 * t + static_cast<double>(i));
      s.shown = s.load * settling + o.drift * std::sin(0.05 * t + s.start) + noise(random) - s.tare;
      if (taring) s.tare += s.shown;
      line.fields[s.name] = std::round(s.shown * 100) / 100;
    }
    terminal.send(line);
    std::this_thread::sleep_for(std::chrono::duration<double>(1 / o.rate));
  }
  return 0;
}

struct RigOptions {
  std::string project, csv;
  std::string leg = "main";
  double height = 0.25, spring = 1, damping = 1;
  double noise = 1.5, stroke_noise = 0.0002, rate = 500, duration = 0.9;
  unsigned seed = 1;
};

//! A drop rig with the leg of a project on it, made as much stiffer and more damped than its design as asked
//! for: acceleration and stroke with noise, over the line or into a table.
int run_rig(const RigOptions& o) {
  const auto read = load_project(o.project);
  for (const auto& f : read.faults)
    std::fprintf(stderr, "kranich-bench: %s: %s %s\n", o.project.c_str(), f.where.c_str(), f.what.c_str());
  if (!read.design) return 2;
  const auto a = assess(*read.design);
  std::optional<spring::DropModel> model;
  for (const auto& l : a.landings)
    if (l.leg == o.leg) model = l.model;
  if (!model) {
    std::fprintf(stderr, "kranich-bench: %s: this leg lacks something for a drop\n", o.project.c_str());
    return 2;
  }
  model->lift_ratio = 0;
  auto samples =
      spring::rig_record(spring::scaled(*model, o.spring, o.damping), o.height, o.rate, o.duration);
  std::mt19937 random(o.seed);
  std::normal_distribution<double> normal(0, 1);
  for (auto& s : samples) {
    s.acceleration += o.noise * normal(random);
    s.stroke += o.stroke_noise * normal(random);
  }
  if (!o.csv.empty()) {
    if (const auto why = write_file_atomically(o.csv, rig_to_csv(samples))) {
      std::fprintf(stderr, "kranich-bench: %s: %s\n", o.csv.c_str(), why->c_str());
      return 4;
    }
    return 0;
  }
  Terminal terminal;
  if (!terminal.announced()) return 4;
  std::this_thread::sleep_for(std::chrono::milliseconds(300));  // until the reader listens
  for (size_t i = 0; i < samples.size() && !ended; ++i) {
    const auto& s = samples[i];
    terminal.send(
        {"RIG",
         {{"t", s.t}, {"a", s.acceleration}, {"s", s.stroke}, {"end", i + 1 == samples.size() ? 1.0 : 0.0}}});
    std::this_thread::sleep_for(std::chrono::duration<double>(0.5 / o.rate));
  }
  while (!ended) std::this_thread::sleep_for(std::chrono::milliseconds(100));
  return 0;
}

struct ServoOptions {
  std::string project, leg;
  double down_early = 0, stowed_early = 0, stiffness = 0, speed = 170, rate = 20;
};

//! A servo tester with a project's servo and unit on it: goes to where it is told, and tells what it draws.
int run_servo(const ServoOptions& o) {
  const auto read = load_project(o.project);
  for (const auto& f : read.faults)
    std::fprintf(stderr, "kranich-bench: %s: %s %s\n", o.project.c_str(), f.where.c_str(), f.what.c_str());
  if (!read.design) return 2;
  const Leg* leg = read.design->gear.find(o.leg);
  auto made = leg ? tested_unit(*leg) : std::variant<drive::TestedUnit, Text>(Text("a leg of that id"));
  if (const auto* missing = std::get_if<Text>(&made)) {
    std::fprintf(stderr, "kranich-bench: %s: %s needs %s\n", o.project.c_str(), o.leg.c_str(),
                 in_words(*missing).c_str());
    return 2;
  }
  auto& unit = std::get<drive::TestedUnit>(made);
  unit.down_early = radians(o.down_early);
  unit.stowed_early = radians(o.stowed_early);
  unit.speed = radians(o.speed);
  if (o.stiffness > 0) unit.stiffness = o.stiffness;
  drive::ServoTester tester(unit);
  Terminal terminal;
  if (!terminal.announced()) return 4;
  Heard heard(terminal);
  int refused = 0;
  auto before = std::chrono::steady_clock::now();
  while (!ended) {
    refused += heard.each([&](const BenchLine& line) {
      if (line.word == "GO" && line.field("to"))
        tester.go(*line.field("to"));
      else if (line.word == "OFF")
        tester.off();
      else
        return false;
      return true;
    });
    const auto now = std::chrono::steady_clock::now();
    tester.advance(std::chrono::duration<double>(now - before).count());
    before = now;
    const auto s = tester.now();
    const auto rounded = [](double v, double to) { return std::round(v / to) * to; };
    terminal.send({"SERVO",
                   {{"to", rounded(tester.goal(), 0.01)},
                    {"at", rounded(s.percent, 0.01)},
                    {"unit", rounded(s.unit, 0.001)},
                    {"current", rounded(s.current, 0.001)},
                    {"moves", s.moves ? 1.0 : 0.0},
                    {"binds", s.binds ? 1.0 : 0.0},
                    {"refused", static_cast<double>(refused)}}});
    std::this_thread::sleep_for(std::chrono::duration<double>(1 / o.rate));
  }
  return 0;
}

struct SequencerOptions {
  std::vector<std::string> slow;
  double pace = 1, rate = 20;
};

//! A programmable sequencer with its servos and units: takes a table of steps, plays it, and tells where
//! everything is.
int run_sequencer(const SequencerOptions& o) {
  sequence::Player player;
  for (const auto& given : o.slow) {
    const auto equals = given.find('=');
    char* end = nullptr;
    const double factor = equals == std::string::npos ? 0 : std::strtod(given.c_str() + equals + 1, &end);
    char* number_end = nullptr;
    const long actor = std::strtol(given.c_str(), &number_end, 10);
    if (equals == 0 || equals == std::string::npos || *number_end != '=' || actor < 0 || !end || *end ||
        !(factor >= 0.1 && factor <= 10)) {
      std::fprintf(stderr, "kranich-bench: --slow %s: must be ACTOR=FACTOR from 0.1 to 10, as in 2=1.3\n",
                   given.c_str());
      return 3;
    }
    player.slow(static_cast<int>(actor), factor);
  }
  Terminal terminal;
  if (!terminal.announced()) return 4;
  Heard heard(terminal);
  int refused = 0;
  const auto obey = [&](const BenchLine& line) {
    const auto number = [&](const char* name) { return line.field(name).value_or(std::nan("")); };
    if (line.word == "CLEAR") {
      player.clear();
      refused = 0;
    } else if (line.word == "PLAY" && line.field("way")) {
      player.play(number("way") > 0.5);
    } else if (line.word == "STOP") {
      player.stop();
    } else if (line.word == "STEP" && number("actor") >= 0 && number("start") >= 0 && number("time") >= 0 &&
               number("to") >= 0 && number("to") <= 1 && line.field("way") && player.steps() < 200) {
      player.add({number("way") > 0.5, static_cast<int>(number("actor")), number("start"), number("time"),
                  number("to")});
    } else {
      return false;
    }
    return true;
  };
  auto before = std::chrono::steady_clock::now();
  while (!ended) {
    refused += heard.each(obey);
    const auto now = std::chrono::steady_clock::now();
    player.advance(o.pace * std::chrono::duration<double>(now - before).count());
    before = now;
    BenchLine line{"SEQ",
                   {{"t", std::round(player.time() * 1000) / 1000},
                    {"way", player.up() ? 1.0 : 0.0},
                    {"end", player.playing() ? 0.0 : 1.0},
                    {"steps", static_cast<double>(player.steps())},
                    {"refused", static_cast<double>(refused)}}};
    for (const auto& [actor, position] : player.positions())
      line.fields["a" + std::to_string(actor)] = std::round(position * 1000) / 1000;
    terminal.send(line);
    std::this_thread::sleep_for(std::chrono::duration<double>(1 / o.rate));
  }
  return 0;
}

}  // namespace

int main(int argc, char** argv) {
  std::signal(SIGTERM, [](int) { ended = 1; });
  std::signal(SIGINT, [](int) { ended = 1; });
  CLI::App app{
      "Stands in for devices of the bench: prints the path of a serial line and sends readings there."};
  app.require_subcommand(1);
  ScalesOptions scales;
  auto* s = app.add_subcommand("scales", "a set of wheel scales");
  s->add_option("--on", scales.on, "a scale and what stands on it, NAME=KG; once for each")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  s->add_option("--noise", scales.noise, "standard deviation of a reading, kg");
  s->add_option("--drift", scales.drift, "slow drift either way, kg");
  s->add_option("--rate", scales.rate, "readings a second")->check(CLI::Range(0.1, 200.0));
  s->add_option("--seed", scales.seed, "of the noise");
  RigOptions rig;
  auto* r = app.add_subcommand("rig", "a drop rig with a project's leg on it");
  r->add_option("--project", rig.project, "project whose leg hangs in it")->required();
  r->add_option("--leg", rig.leg, "id of the leg on it (main)");
  r->add_option("--height", rig.height, "dropped from, m")->check(CLI::Range(0.01, 3.0));
  r->add_option("--spring", rig.spring, "its spring against the design's, factor")
      ->check(CLI::Range(0.2, 5.0));
  r->add_option("--damping", rig.damping, "its damping against the design's, factor")
      ->check(CLI::Range(0.2, 5.0));
  r->add_option("--noise", rig.noise, "standard deviation of the acceleration, m/s²");
  r->add_option("--stroke-noise", rig.stroke_noise, "standard deviation of the stroke, m");
  r->add_option("--rate", rig.rate, "samples a second")->check(CLI::Range(50.0, 5000.0));
  r->add_option("--duration", rig.duration, "seconds recorded")->check(CLI::Range(0.1, 10.0));
  r->add_option("--csv", rig.csv, "write a table here instead of sending lines");
  r->add_option("--seed", rig.seed, "of the noise");
  SequencerOptions sequencer;
  auto* q = app.add_subcommand("sequencer", "a programmable sequencer that plays the steps it is sent");
  q->add_option("--slow", sequencer.slow, "an actor that takes so many times its time, ACTOR=FACTOR")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  q->add_option("--pace", sequencer.pace, "its clock against the wall's, factor")
      ->check(CLI::Range(0.1, 100.0));
  q->add_option("--rate", sequencer.rate, "answers a second")->check(CLI::Range(1.0, 200.0));
  ServoOptions servo;
  auto* v = app.add_subcommand("servo", "a servo tester with a project's servo and retract unit on it");
  v->add_option("--project", servo.project, "project whose leg has the servo")->required();
  v->add_option("--leg", servo.leg, "id of the leg")->required();
  v->add_option("--down-early", servo.down_early, "the unit's stop down comes so early, degrees of its arm")
      ->check(CLI::Range(0.0, 30.0));
  v->add_option("--stowed-early", servo.stowed_early, "the same stowed")->check(CLI::Range(0.0, 30.0));
  v->add_option("--stiffness", servo.stiffness, "of rod and mount, N/m, instead of the project's")
      ->check(CLI::Range(10.0, 1e8));
  v->add_option("--speed", servo.speed, "of the servo, degrees a second")->check(CLI::Range(1.0, 5000.0));
  v->add_option("--rate", servo.rate, "answers a second")->check(CLI::Range(1.0, 200.0));
  CLI11_PARSE(app, argc, argv);
  if (*v) return run_servo(servo);
  if (*q) return run_sequencer(sequencer);
  return *r ? run_rig(rig) : run_scales(scales);
}
