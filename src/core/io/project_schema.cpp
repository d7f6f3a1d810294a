// SPDX-License-Identifier: GPL-3.0-or-later
#include <cxxabi.h>
#include <fmt/format.h>

#include <cmath>
#include <cstdlib>
#include <memory>
#include <nlohmann/json.hpp>
#include <typeinfo>

#include "core/io/project_file.h"
#include "core/model/describe.h"

namespace kranich {
namespace {

using Json = nlohmann::ordered_json;

bool is_degrees(std::string_view key) { return key.size() > 4 && key.substr(key.size() - 4) == "_deg"; }
double in_file(double si, std::string_view key) {
  return is_degrees(key) ? std::round(degrees(si) * 1e6) / 1e6 : si;
}

//! "Leg" of kranich::Leg: what a described type is called in the schema.
template <class T>
std::string type_name() {
  int status = 0;
  const std::unique_ptr<char, void (*)(void*)> name(
      abi::__cxa_demangle(typeid(T).name(), nullptr, nullptr, &status), std::free);
  const std::string full = status == 0 ? name.get() : typeid(T).name();
  return full.substr(full.rfind(':') + 1);
}

//! Every type and every kind of quantity is written once, under "definitions", and referred to.
class SchemaVisitor {
 public:
  explicit SchemaVisitor(Json& definitions) : definitions_(definitions) {}

  void given(std::string_view key, const Given&, const Spec& spec) {
    Json number{{"type", "number"}};
    std::string name(is_degrees(key) ? "degrees" : kind_name(spec.kind));
    if (std::isfinite(spec.least)) {
      number[spec.above_least ? "exclusiveMinimum" : "minimum"] = in_file(spec.least, key);
      name += fmt::format(" {} {}", spec.above_least ? "above" : "from", shortest(in_file(spec.least, key)));
    }
    if (std::isfinite(spec.most)) {
      number["maximum"] = in_file(spec.most, key);
      name += fmt::format(" to {}", shortest(in_file(spec.most, key)));
    }
    if (!definitions_.contains(name)) {
      Json object{
          {"type", "object"},
          {"properties",
           {{"value", number},
            {"tolerance",
             {{"type", "number"}, {"minimum", 0}, {"maximum", in_file(spec.largest_tolerance(), key)}}},
            {"origin", {{"enum", {"default", "plan", "estimated", "measured", "undecided", "guessed"}}}}}},
          {"required", {"value"}},
          {"additionalProperties", false}};
      definitions_[name] = {{"anyOf", {number, object, {{"type", "null"}}}}};
    }
    refer(key, spec.title, name);
  }
  void text(std::string_view key, const std::string&, std::string_view title) {
    properties_[std::string(key)] = {{"title", title}, {"type", "string"}};
  }
  void flag(std::string_view key, const bool&, std::string_view title) {
    properties_[std::string(key)] = {{"title", title}, {"type", "boolean"}};
  }
  template <class E>
  void choice(std::string_view key, E&, Names names, std::string_view title) {
    Json words = Json::array();
    for (const auto n : names) words.push_back(n);
    properties_[std::string(key)] = {{"title", title}, {"enum", words}};
  }
  template <class T>
  void object(std::string_view key, T&, std::string_view title) {
    refer(key, title, defined<T>());
  }
  template <class T>
  void list(std::string_view key, const std::vector<T>&, std::string_view title, size_t most) {
    properties_[std::string(key)] = {{"title", title},
                                     {"type", "array"},
                                     {"maxItems", most},
                                     {"items", {{"$ref", place_of(defined<T>())}}}};
  }
  void project(std::string_view key, const std::string&, std::string_view title) {
    properties_[std::string(key)] = {{"title", title}, {"allOf", Json::array({Json{{"$ref", "#"}}})}};
  }
  template <class T>
  static Json schema_of(T& t, Json& definitions) {
    SchemaVisitor inner(definitions);
    describe(inner, t);
    return {{"type", "object"}, {"properties", std::move(inner.properties_)}};
  }

 private:
  static std::string place_of(const std::string& name) {
    std::string escaped;  // in a reference a space is %20
    for (const char c : name) escaped += c == ' ' ? std::string("%20") : std::string(1, c);
    return "#/definitions/" + escaped;
  }
  void refer(std::string_view key, std::string_view title, const std::string& name) {
    properties_[std::string(key)] = {{"title", title},
                                     {"allOf", Json::array({Json{{"$ref", place_of(name)}}})}};
  }
  template <class T>
  std::string defined() {
    const std::string name = type_name<T>();
    if (!definitions_.contains(name)) {
      T sample;
      Json schema = schema_of(sample, definitions_);
      definitions_[name] = std::move(schema);
    }
    return name;
  }
  Json& definitions_;
  Json properties_ = Json::object();
};

std::string unit_in_file(Kind kind, std::string_view key) {
  if (is_degrees(key)) return "degrees";
  switch (kind) {
    case Kind::share:
      return "fraction";
    case Kind::factor:
      return "number";
    default:
      break;
  }
  for (const auto& u : known_units())
    if (u.kind == kind) return std::string(u.symbol);
  return "";
}

class MarkdownVisitor {
 public:
  explicit MarkdownVisitor(std::string path) : path_(std::move(path)) {}
  void given(std::string_view key, const Given&, const Spec& spec) {
    std::string allowed;
    if (std::isfinite(spec.least))
      allowed +=
          fmt::format("{} {}", spec.above_least ? "above" : "from", shortest(in_file(spec.least, key)));
    if (std::isfinite(spec.most))
      allowed += fmt::format("{}to {}", allowed.empty() ? "" : " ", shortest(in_file(spec.most, key)));
    row(key, spec.title, unit_in_file(spec.kind, key), allowed);
  }
  void text(std::string_view key, const std::string&, std::string_view title) { row(key, title, "text", ""); }
  void flag(std::string_view key, const bool&, std::string_view title) {
    row(key, title, "true or false", "");
  }
  template <class E>
  void choice(std::string_view key, E&, Names names, std::string_view title) {
    std::string words;
    for (const auto n : names) words += (words.empty() ? "`\"" : ", `\"") + std::string(n) + "\"`";
    row(key, title, "choice", words);
  }
  template <class T>
  void object(std::string_view key, T& t, std::string_view title) {
    row(key, title, "object", "see below");
    MarkdownVisitor inner(fmt::format("{}/{}", path_, key));
    describe(inner, t);
    later_ += inner.whole(title);
  }
  template <class T>
  void list(std::string_view key, const std::vector<T>&, std::string_view title, size_t most) {
    row(key, title, "list", fmt::format("at most {}; see below", most));
    T sample;
    MarkdownVisitor inner(fmt::format("{}/{}/…", path_, key));
    describe(inner, sample);
    later_ += inner.whole(title);
  }
  void project(std::string_view key, const std::string&, std::string_view title) {
    row(key, title, "project", "a whole project of this format, without variants");
  }
  std::string whole(std::string_view title) const {
    return fmt::format(
        "\n### `{}` – {}\n\n| key | meaning | unit or type | allowed |\n|---|---|---|---|\n{}{}",
        path_.empty() ? "/" : path_, title, rows_, later_);
  }

 private:
  void row(std::string_view key, std::string_view title, std::string_view unit, std::string_view allowed) {
    rows_ += fmt::format("| `{}` | {} | {} | {} |\n", key, title, unit, allowed);
  }
  std::string path_, rows_, later_;
};

}  // namespace

std::string project_schema() {
  Design sample;
  Json schema{{"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", "Kranich project"}};
  Json definitions = Json::object();
  schema.update(SchemaVisitor::schema_of(sample, definitions));
  Json properties{
      {"kranich", {{"title", "Version of the file format"}, {"type", "integer"}, {"minimum", 1}}}};
  properties.update(schema["properties"]);
  schema["properties"] = std::move(properties);
  schema["required"] = {"kranich"};
  schema["definitions"] = std::move(definitions);
  return schema.dump(1) + "\n";
}

std::string project_fields_markdown() {
  Design sample;
  MarkdownVisitor visitor("");
  describe(visitor, sample);
  return visitor.whole("the project");
}

}  // namespace kranich
