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

#include "core/io/bench_line.h"

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
  const std::string& path() const { return path_; }
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

struct ScalesOptions {
  double third = 102.3, port = 169.4, starboard = 170.5;
  double noise = 0.05, drift = 0.02, rate = 5;
  unsigned seed = 1;
};

//! Three wheel scales: readings with noise, a slow drift of each, and a few seconds until they settle.
int run_scales(const ScalesOptions& o) {
  Terminal terminal;
  if (!terminal.ok()) {
    std::fprintf(stderr, "kranich-bench: no pseudo terminal can be had\n");
    return 4;
  }
  std::printf("%s\n", terminal.path().c_str());
  std::fflush(stdout);
  std::mt19937 random(o.seed);
  std::normal_distribution<double> noise(0, o.noise);
  std::uniform_real_distribution<double> phase(0, 6.28);
  const double start[3] = {phase(random), phase(random), phase(random)};
  double tare[3] = {0, 0, 0};
  const auto began = std::chrono::steady_clock::now();
  while (!ended) {
    const double t = std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
    const double load[3] = {o.third, o.port, o.starboard};
    double shown[3];
    for (int i = 0; i < 3; ++i) {
      const double settling = 1 - 0.4 * std::exp(-2.5 * t) * std::cos(9 * t + i);
      shown[i] = load[i] * settling + o.drift * std::sin(0.05 * t + start[i]) + noise(random) - tare[i];
    }
    if (terminal.received().find("TARE") != std::string::npos)
      for (int i = 0; i < 3; ++i) tare[i] += shown[i];
    const auto to_10_g = [](double v) { return std::round(v * 100) / 100; };
    terminal.send({"SCALES",
                   {{"third", to_10_g(shown[0])},
                    {"port", to_10_g(shown[1])},
                    {"starboard", to_10_g(shown[2])},
                    {"steady", t > 2.5 ? 1.0 : 0.0}}});
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
  auto* s = app.add_subcommand("scales", "three wheel scales");
  s->add_option("--third", scales.third, "on the nose or tail scale, kg");
  s->add_option("--port", scales.port, "on the port scale, kg");
  s->add_option("--starboard", scales.starboard, "on the starboard scale, kg");
  s->add_option("--noise", scales.noise, "standard deviation of a reading, kg");
  s->add_option("--drift", scales.drift, "slow drift either way, kg");
  s->add_option("--rate", scales.rate, "readings a second")->check(CLI::Range(0.1, 200.0));
  s->add_option("--seed", scales.seed, "of the noise");
  CLI11_PARSE(app, argc, argv);
  return run_scales(scales);
}
