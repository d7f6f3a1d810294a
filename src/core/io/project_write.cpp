// SPDX-License-Identifier: GPL-3.0-or-later
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cmath>
#include <cstring>
#include <fstream>
#include <nlohmann/json.hpp>
#include <set>
#include <sstream>

#include "core/io/mesh_file.h"
#include "core/io/project_file.h"
#include "core/model/describe.h"

namespace kranich {
namespace {

using Json = nlohmann::ordered_json;

bool is_degrees(std::string_view key) { return key.size() > 4 && key.substr(key.size() - 4) == "_deg"; }

//! Degrees whose last digits are the radian's rounding are written as the round number they came from, as
//! long as that reads back to the same angle. Any other as the number of degrees that reads back to it; where
//! none does to the last digit, to the angle next to it, and what is read is then written alike.
double tidy_degrees(double rad) {
  if (!std::isfinite(rad)) return rad;
  const auto read = [](double deg) { return deg * radians(1); };
  const double deg = degrees(rad);
  for (const double unit : {1e3, 1e6, 1e9, 1e12}) {
    const double round = std::round(deg * unit) / unit;
    if (read(round) == rad || std::abs(read(round) - rad) <= 1e-15 * std::abs(rad)) return round;
  }
  const auto exact = [&](double angle) -> std::optional<double> {
    double below = degrees(angle);
    double above = below;
    for (int i = 0; i < 4; ++i) {
      if (read(below) == angle) return below;
      if (read(above) == angle) return above;
      below = std::nextafter(below, -1e9);
      above = std::nextafter(above, 1e9);
    }
    return std::nullopt;
  };
  if (const auto same = exact(rad)) return *same;
  return exact(read(deg)).value_or(deg);
}

//! Which quantities of a structure start with a default: left out they would come back as that.
class Defaults {
 public:
  void given(std::string_view key, const Given& g, const Spec&) {
    if (g.known()) keys.insert(key);
  }
  void text(std::string_view, const std::string&, std::string_view) {}
  void flag(std::string_view, const bool&, std::string_view) {}
  template <class E>
  void choice(std::string_view, E&, Names, std::string_view) {}
  template <class T>
  void object(std::string_view, T&, std::string_view) {}
  template <class T>
  void list(std::string_view, const std::vector<T>&, std::string_view, size_t) {}
  void project(std::string_view, const std::string&, std::string_view) {}
  std::set<std::string_view> keys;

  template <class T>
  static const std::set<std::string_view>& of() {
    static const std::set<std::string_view> known = [] {
      Defaults collect;
      T fresh{};
      describe(collect, fresh);
      return std::move(collect.keys);
    }();
    return known;
  }
};

//! Builds one JSON object from one described structure.
class Writer {
 public:
  explicit Writer(const std::set<std::string_view>& defaulted) : defaulted_(defaulted) {}

  void given(std::string_view key, const Given& g, const Spec& spec) {
    if (!g.known()) {
      if (defaulted_.contains(key)) result_[std::string(key)] = nullptr;
      return;
    }
    const bool deg = spec.kind == Kind::angle && is_degrees(key);
    const auto number = [&](double v) { return deg ? tidy_degrees(v) : v; };
    auto& slot = result_[std::string(key)];
    if (g.tolerance == 0 && g.origin == Origin::plan) {
      slot = number(g.si);
      return;
    }
    slot = Json{{"value", number(g.si)}};
    if (g.tolerance != 0) slot["tolerance"] = number(g.tolerance);
    if (g.origin != Origin::plan && g.origin != Origin::missing)
      slot["origin"] = origin_names[static_cast<size_t>(g.origin)];
  }
  void text(std::string_view key, const std::string& s, std::string_view) {
    if (!s.empty()) result_[std::string(key)] = s;
  }
  void flag(std::string_view key, const bool& b, std::string_view) { result_[std::string(key)] = b; }
  template <class E>
  void choice(std::string_view key, const E& e, Names names, std::string_view) {
    result_[std::string(key)] = names[static_cast<size_t>(e)];
  }
  template <class T>
  void object(std::string_view key, const T& t, std::string_view) {
    Json inner = written(t);
    if (!inner.empty()) result_[std::string(key)] = std::move(inner);
  }
  template <class T>
  void list(std::string_view key, const std::vector<T>& items, std::string_view, size_t) {
    if (items.empty()) return;
    Json array = Json::array();
    for (const auto& item : items) array.push_back(written(item));
    result_[std::string(key)] = std::move(array);
  }
  void project(std::string_view key, const std::string& text, std::string_view) {
    if (!text.empty()) result_[std::string(key)] = Json::parse(text, nullptr, false);
  }
  template <class T>
  static Json written(const T& t) {
    Writer inner(Defaults::of<T>());
    describe(inner, t);
    for (const auto& [key, raw] : t.unknown_keys) inner.result_[key] = Json::parse(raw, nullptr, false);
    return std::move(inner.result_);
  }

 private:
  const std::set<std::string_view>& defaulted_;
  Json result_ = Json::object();
};

std::string reason(const char* what) { return fmt::format("{}: {}", what, std::strerror(errno)); }

}  // namespace

std::string write_project(const Design& design) {
  Json root = Json::object();
  root["kranich"] = file_version;
  Design copy = design;  // describing takes a mutable design
  Json body = Writer::written(copy);
  for (auto& [key, value] : body.items()) root[key] = std::move(value);
  return root.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

std::optional<std::string> read_text_file(const std::filesystem::path& path, std::size_t limit) {
  std::error_code error;
  if (!std::filesystem::is_regular_file(path, error)) return std::nullopt;
  std::ifstream in(path, std::ios::binary);
  if (!in) return std::nullopt;
  std::string text;
  text.resize(limit + 1);
  in.read(text.data(), static_cast<std::streamsize>(text.size()));
  text.resize(static_cast<size_t>(in.gcount()));
  return text;
}

ReadResult load_project(const std::filesystem::path& path) {
  const auto text = read_text_file(path);
  if (!text) {
    ReadResult result;
    result.faults.push_back({path.string(), "cannot be read: it is not there, not a file, or not allowed"});
    return result;
  }
  ReadResult result = read_project(*text);
  if (result.design) load_meshes(*result.design, path.parent_path());
  return result;
}

std::optional<std::string> write_file_atomically(const std::filesystem::path& wanted, std::string_view text) {
  // A link stays a link: what it leads to is replaced. A file keeps its mode and, where we may, its owner.
  std::error_code error;
  std::filesystem::path path = wanted;
  if (std::filesystem::is_symlink(wanted, error)) {
    const auto target = std::filesystem::weakly_canonical(wanted, error);
    if (!error) path = target;
  }
  struct stat before {};
  const bool there = ::stat(path.c_str(), &before) == 0;
  if (there && !S_ISREG(before.st_mode)) return "cannot write there: it is not a file";
  const std::string temporary = fmt::format("{}.{}.part", path.string(), getpid());
  const int fd = ::open(temporary.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, there ? 0600 : 0666);
  if (fd < 0) return reason("cannot write there");
  if (there) {
    if (::fchown(fd, before.st_uid, before.st_gid) != 0) {  // somebody else's: it becomes ours
    }
    ::fchmod(fd, before.st_mode & 07777);
  }
  std::string_view rest = text;
  while (!rest.empty()) {
    const ssize_t n = ::write(fd, rest.data(), rest.size());
    if (n < 0) {
      if (errno == EINTR) continue;
      const auto why = reason("writing stopped");
      ::close(fd);
      ::unlink(temporary.c_str());
      return why;
    }
    rest.remove_prefix(static_cast<size_t>(n));
  }
  const bool synced = ::fsync(fd) == 0;
  if (::close(fd) != 0 || !synced || ::rename(temporary.c_str(), path.c_str()) != 0) {
    const auto why = reason("cannot finish the file");
    ::unlink(temporary.c_str());
    return why;
  }
  return std::nullopt;
}

std::optional<std::string> save_project(const Design& design, const std::filesystem::path& path) {
  std::error_code error;
  if (std::filesystem::is_regular_file(
          path, error)) {  // a hard link keeps the old file while the new one takes its name
    const std::filesystem::path copy = path.string() + "~";
    std::filesystem::remove(copy, error);
    std::filesystem::create_hard_link(path, copy, error);
    if (error)
      std::filesystem::copy_file(path, copy, std::filesystem::copy_options::overwrite_existing, error);
  }
  return write_file_atomically(path, write_project(design));
}

}  // namespace kranich
