// SPDX-License-Identifier: GPL-3.0-or-later
//! Attacks on the project file through the built command line tool: a thousand mutated copies of the demos.
//! None may crash it, hang it, or be taken for good with nonsense in it.
#include <fcntl.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <catch2/catch.hpp>
#include <chrono>
#include <filesystem>
#include <random>
#include <thread>

#include "core/io/project_file.h"

using namespace kranich;
namespace fs = std::filesystem;
extern char** environ;  // NOLINT: POSIX

namespace {

struct Outcome {
  int code;  //!< exit code; −1 ended by a signal, −2 hung
  std::string output;
};

Outcome run(const fs::path& file, const fs::path& output) {
  const std::string program = KRANICH_CLI;
  const std::string path = file.string();
  std::array<const char*, 5> args{program.c_str(), "assess", "--json", path.c_str(), nullptr};
  posix_spawn_file_actions_t actions;
  posix_spawn_file_actions_init(&actions);
  posix_spawn_file_actions_addopen(&actions, 1, output.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0600);
  posix_spawn_file_actions_addopen(&actions, 2, "/dev/null", O_WRONLY, 0);
  pid_t child = 0;
  REQUIRE(posix_spawn(&child, program.c_str(), &actions, nullptr, const_cast<char**>(args.data()), environ) ==
          0);
  posix_spawn_file_actions_destroy(&actions);
  int status = 0;
  for (int waited = 0; waitpid(child, &status, WNOHANG) == 0; ++waited) {
    if (waited > 20000) {
      kill(child, SIGKILL);
      waitpid(child, &status, 0);
      return {-2, {}};
    }
    std::this_thread::sleep_for(std::chrono::milliseconds(1));
  }
  return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, read_text_file(output, 8u << 20).value_or("")};
}

//! One mutation of a text, by kind; says in `must_refuse` if it can't be taken for good.
std::string mutate(std::string s, int kind, std::mt19937& random, bool& must_refuse) {
  const auto any = [&](size_t n) { return static_cast<size_t>(random() % n); };
  const auto number_at = [&] {  // a number standing after a colon
    for (int tries = 0; tries < 400; ++tries) {
      const size_t at = s.find(": ", any(s.size() - 40));
      if (at != std::string::npos &&
          (std::isdigit(static_cast<unsigned char>(s[at + 2])) || s[at + 2] == '-'))
        return at + 2;
    }
    return s.find(": 0") + 2;
  };
  const auto replace_number = [&](const std::string& with) {
    const size_t at = number_at();
    const size_t end = s.find_first_of(",}\n", at);
    s.replace(at, end - at, with);
  };
  must_refuse = false;
  switch (kind) {
    case 0:
      for (size_t n = 1 + any(4); n > 0; --n) s[any(s.size())] = static_cast<char>(random() & 0xff);
      break;
    case 1:
      s.resize(any(s.size() - 2));
      must_refuse = true;
      break;
    case 2:
      replace_number("\"wide\"");
      must_refuse = true;
      break;
    case 3:
      replace_number("NaN");
      must_refuse = true;
      break;
    case 4:
      replace_number(any(2) ? "1e308" : "-1e308");
      must_refuse = true;
      break;
    case 5: {
      const size_t at = s.find("\"mass_kg\"", any(s.find("\"gear\"")) / 2);
      const size_t value = s.find("\"value\": ", at) + 9;
      s.insert(value, "-");
      must_refuse = s.compare(value, 2, "--") != 0;
      break;
    }
    case 6: {
      const size_t at = s.find('[', any(s.size() / 2));
      const size_t end = s.find(']', at);
      if (at != std::string::npos && end != std::string::npos) s.replace(at, end - at + 1, "[]");
      break;
    }
    case 7:
      replace_number("{}");
      must_refuse = true;
      break;
    case 8:
      s.insert(any(s.size()), s.substr(any(s.size()), 30));
      break;
    default:
      replace_number("0");
      break;
  }
  return s;
}

}  // namespace

TEST_CASE("a thousand mutated projects neither crash, hang nor pass for good") {
  const auto dir = fs::temp_directory_path() / ("kranich-attack-" + std::to_string(getpid()));
  fs::create_directories(dir);
  std::mt19937 random(20);
  std::array<std::string, 2> demos;
  for (size_t i = 0; i < 2; ++i) {
    const auto text =
        read_text_file(fs::path(KRANICH_DATA_DIR) / "demo" / (i ? "redshank.kranich" : "dunnock.kranich"));
    REQUIRE(text);
    demos[i] = *text;
  }
  int accepted = 0;
  for (int i = 0; i < 1000; ++i) {
    bool must_refuse = false;
    const auto text = mutate(demos[static_cast<size_t>(i % 2)], i / 2 % 10, random, must_refuse);
    const auto file = dir / "mutant.kranich";
    REQUIRE_FALSE(write_file_atomically(file, text));
    const auto outcome = run(file, dir / "out");
    INFO("mutation " << i << ", kind " << i / 2 % 10 << ", exit " << outcome.code);
    CHECK(outcome.code >= 0);
    CHECK(outcome.code <= 2);
    if (must_refuse) CHECK(outcome.code == 2);
    if (outcome.code == 2) continue;
    ++accepted;
    CHECK(outcome.output.find("nan") == std::string::npos);
    CHECK(outcome.output.find("\"kranich_assessment\"") != std::string::npos);
  }
  CHECK(accepted > 50);  // the mutations that only change a value are still projects
  fs::remove_all(dir);
}
