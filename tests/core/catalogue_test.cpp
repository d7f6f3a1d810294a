// SPDX-License-Identifier: GPL-3.0-or-later
//! Another language: its catalogue read, its numbers and sentences put together.
#include "core/io/catalogue.h"

#include <catch2/catch.hpp>
#include <filesystem>

#include "core/base/measure.h"
#include "core/io/project_file.h"

using namespace kranich;

namespace {

//! A number and its unit stay on one line.
const std::string quantity = with_decimal(format_quantity(0.0125, Kind::length, UnitSystem::metric), ',');

const Catalogue& german() {
  static const auto read =
      read_catalogue(*read_text_file(std::filesystem::path(KRANICH_DATA_DIR) / "tongues" / "de.po"));
  REQUIRE(read.faults.empty());
  return read.catalogue;
}

std::string faults_in(std::string_view po) {
  std::string all;
  for (const auto& f : read_catalogue(po).faults) all += f.where + ": " + f.what + "\n";
  return all;
}

}  // namespace

TEST_CASE("a catalogue is read as its translator's program writes it, and its slips are named") {
  const auto read = read_catalogue(
      "# German\nmsgid \"\"\nmsgstr \"Language: de\\n\"\n\n#: here\nmsgid \"a \\\"{}\\\" \"\n\"of "
      "{}\"\nmsgstr \"\"\n"
      "\"{2}: \\\"{1}\\\"\"\n\nmsgid \"not yet\"\nmsgstr \"\"\n\r\nmsgid \"two\\nlines\"\r\nmsgstr "
      "\"zwei\\nZeilen\"\r\n");
  CHECK(read.faults.empty());
  CHECK(read.catalogue.size() == 2);
  CHECK(read.catalogue.at("two\nlines") == "zwei\nZeilen");
  const Tongue other{UnitSystem::metric, &read.catalogue, ','};
  CHECK(in_words(say("a \"{}\" of {}", Amount{0.0125, Kind::length}, Figure{3.25, 2}), other) ==
        "3,25: \"" + quantity + "\"");
  CHECK(in_words(Text("not yet"), other) == "not yet");
  // What the user called something is his, whatever it is.
  CHECK(in_words(Text(std::string("two\nlines")), other) == "two\nlines");

  CHECK(faults_in("msgid \"a\"\nmsgstr \"b\"\nmsgid \"a\"\nmsgstr \"c\"\n") == "line 3: “a” stands twice\n");
  CHECK(faults_in("msgid \"{} of {}\"\nmsgstr \"{}\"\n") == "line 1: “{}” has other marks than “{} of {}”\n");
  CHECK(faults_in("msgid \"%1\"\nmsgstr \"%2\"\n") == "line 1: “%2” has other marks than “%1”\n");
  CHECK(faults_in("msgid a\n") == "line 1: a text in quotes was expected\n");
  CHECK(faults_in("msgid \"\\x\"\n") == "line 1: a text in quotes was expected\n");
  CHECK(faults_in("\"more\"\n") == "line 1: a text in quotes was expected\n");
  CHECK(faults_in("msgctxt \"a\"\n") == "line 1: neither msgid, msgstr nor more of one\n");
}

TEST_CASE("only the point of a number becomes a comma") {
  CHECK(with_decimal("−12.50 kN·m", ',') == "−12,50 kN·m");
  CHECK(with_decimal("1.5 … 2.25.", ',') == "1,5 … 2,25.");
  CHECK(with_decimal("approx. 3", ',') == "approx. 3");
  CHECK(with_decimal("1.5", '.') == "1.5");
  CHECK(with_decimal("", ',').empty());
}

TEST_CASE("the German catalogue is whole: every measure has title, meaning and source in it") {
  CHECK(german().size() > 5000);
  size_t same = 0;
  for (const Measure& m : all_measures()) {
    INFO(m.id);
    for (const std::string_view words : {m.title, m.meaning, m.source})
      if (words.find(' ') != std::string_view::npos) CHECK(german().contains(words));
    const auto title = german().find(m.title);
    same += title == german().end() || title->second == m.title;
  }
  CHECK(same < 3);
  const Tongue tongue{UnitSystem::metric, &german(), ','};
  CHECK(in_words(say("{} forward by {}", Text("main wheels"), Amount{0.0125, Kind::length}), tongue) ==
        "main wheels um " + quantity + " nach vorn");
  CHECK(in_words(measure("weigh.mass").title, tongue) == "Masse");
}
