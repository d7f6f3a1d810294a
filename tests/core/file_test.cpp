// SPDX-License-Identifier: GPL-3.0-or-later
#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "core/force/coil.h"
#include "core/force/materials.h"
#include "core/io/csv.h"
#include "core/io/project_file.h"
#include "core/io/shelves.h"
#include "core/model/locate.h"

using namespace kranich;
namespace fs = std::filesystem;

namespace {

std::string demo(const std::string& name) {
  const auto text = read_text_file(fs::path(KRANICH_DATA_DIR) / "demo" / (name + ".kranich"));
  REQUIRE(text);
  return *text;
}
Design dunnock() {
  auto r = read_project(demo("dunnock"));
  REQUIRE(r.design);
  return *r.design;
}
std::string faults(const std::string& text) {
  const auto r = read_project(text);
  REQUIRE_FALSE(r.design);
  std::string s;
  for (const auto& f : r.faults) s += f.where + ": " + f.what + "\n";
  return s;
}
std::string replaced(std::string s, const std::string& what, const std::string& with) {
  const auto at = s.find(what);
  REQUIRE(at != std::string::npos);
  return s.replace(at, what.size(), with);
}
fs::path scratch(const std::string& name) {
  const auto dir = fs::temp_directory_path() / ("kranich-test-" + std::to_string(getpid()));
  fs::create_directories(dir);
  return dir / name;
}

}  // namespace

TEST_CASE("what is written reads back the same, to the letter the second time") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto first = read_project(demo(name));
    REQUIRE(first.design);
    const auto text = write_project(*first.design);
    const auto second = read_project(text);
    REQUIRE(second.design);
    CHECK(*second.design == *first.design);
    CHECK(write_project(*second.design) == text);
    CHECK(text.substr(0, 16).find("\"kranich\"") != std::string::npos);
  }
}

TEST_CASE("metric and inch projects hold identical SI values") {
  auto d = dunnock();
  d.units = UnitSystem::inch;
  auto back = read_project(write_project(d));
  REQUIRE(back.design);
  back.design->units = UnitSystem::metric;
  CHECK(*back.design == dunnock());
}

TEST_CASE("unknown keys stay where they were") {
  auto text = replaced(demo("dunnock"), "\"kranich\": 4,", "\"kranich\": 3, \"colour\": {\"a\": [1, 2]},");
  text = replaced(text, "\"name\": \"battery\",", "\"name\": \"battery\", \"serial\": \"x-7\",");
  const auto r = read_project(text);
  REQUIRE(r.design);
  const auto written = write_project(*r.design);
  CHECK(written.find("\"colour\"") != std::string::npos);
  CHECK(written.find("\"serial\": \"x-7\"") != std::string::npos);
  CHECK(written.find("\"serial\"") > written.find("\"battery\""));
}

TEST_CASE("faults name the field, what was found and what is allowed") {
  const auto d = demo("dunnock");
  CHECK(faults("").find("empty") != std::string::npos);
  CHECK(faults("{\"kranich\": 1,\n \"about\": }").find("line 2") != std::string::npos);
  CHECK(faults("[1]").find("starts with the key") != std::string::npos);
  CHECK(faults("{\"units\": \"metric\", \"kranich\": 1}").find("starts with") != std::string::npos);
  CHECK(faults("{\"kranich\": 0}").find("/kranich") != std::string::npos);
  CHECK(faults("{\"kranich\": 1, \"kranich\": 1}").find("twice") != std::string::npos);
  CHECK(faults(replaced(d, "\"value\": 138", "\"value\": -138"))
            .find("/ledger/0/mass_kg: must be above 0, is -138") != std::string::npos);
  CHECK(faults(replaced(d, "\"value\": 138", "\"value\": \"a\"")).find("must be a number") !=
        std::string::npos);
  CHECK(faults(replaced(d, "\"value\": 138", "\"value\": 1e308")).find("at most 20000") != std::string::npos);
  CHECK(faults(replaced(d, "\"value\": 138", "\"value\": NaN")).find("line") != std::string::npos);
  CHECK(faults(replaced(d, "\"value\": 138", "\"value\": 1e999")).size() > 0);
  CHECK(
      faults(replaced(d, "\"full-size\"", "\"half-size\"")).find("must be one of \"full-size\", \"model\"") !=
      std::string::npos);
  CHECK(
      faults(replaced(d, "\"unit_angle_deg\": 88", "\"unit_angle_deg\": 400")).find("at most 180, is 400") !=
      std::string::npos);
  CHECK(faults(replaced(d, "\"item\": \"pilot\"", "\"item\": \"pilgrim\"")).find("is no item") !=
        std::string::npos);
  CHECK(faults(replaced(d, "\"name\": \"wing panels\"", "\"name\": \"engine\"")).find("used twice") !=
        std::string::npos);
  CHECK(faults(std::string(largest_file + 1, ' ')).find("bytes long") != std::string::npos);
  CHECK(faults(d.substr(0, d.size() / 2)).find("line") != std::string::npos);
  CHECK(
      faults("{\"kranich\": 1, \"x\": " + std::string(70, '[') + std::string(70, ']') + "}").find("nested") !=
      std::string::npos);
}

TEST_CASE("several faults are all named") {
  auto text = replaced(demo("dunnock"), "\"value\": 138", "\"value\": -138");
  text = replaced(text, "\"unit_angle_deg\": 88", "\"unit_angle_deg\": 400");
  CHECK(read_project(text).faults.size() == 2);
}

TEST_CASE("a missing quantity is unknown, not zero") {
  const auto r = read_project("{\"kranich\": 1}");
  REQUIRE(r.design);
  CHECK_FALSE(r.design->gear.main().axle.x.known());
  CHECK(std::isnan(value_at(*r.design, "/gear/legs/main/axle/x_m")));
}

TEST_CASE("a newer file is readable and says so") {
  const auto r = read_project(replaced(demo("dunnock"), fmt::format("\"kranich\": {}", file_version),
                                       fmt::format("\"kranich\": {}", file_version + 1)));
  REQUIRE(r.design);
  CHECK(r.newer);
}

TEST_CASE("saving keeps the last good copy and leaves nothing half written") {
  const auto path = scratch("saved.kranich");
  fs::remove(path);
  auto d = dunnock();
  REQUIRE_FALSE(save_project(d, path));
  d.about.revision = "13";
  REQUIRE_FALSE(save_project(d, path));
  CHECK(load_project(path).design->about.revision == "13");
  CHECK(load_project(path.string() + "~").design->about.revision == "12");
  for (const auto& entry : fs::directory_iterator(path.parent_path()))
    CHECK(entry.path().extension() != ".part");
  const auto why = save_project(d, "/no/such/place/x.kranich");
  REQUIRE(why);
  CHECK(why->find("cannot write") != std::string::npos);
  fs::remove_all(path.parent_path());
}

TEST_CASE("paths reach members, and refuse what is not allowed") {
  auto d = dunnock();
  const auto at = locate_given(d, "/gear/legs/main/axle/x_m");
  REQUIRE(at);
  CHECK(at->given->si == Approx(2.45));
  CHECK(at->spec.title == "Station");
  CHECK(locate_given(d, "/ledger/3/mass_kg"));
  CHECK_FALSE(locate_given(d, "/ledger/999/mass_kg"));
  CHECK_FALSE(locate_given(d, "/ledger/x/mass_kg"));
  CHECK_FALSE(locate_given(d, "/gear/legs/main"));
  CHECK_FALSE(locate_given(d, "nonsense"));
  CHECK(set_choice(d, "/purpose/field", 0));
  CHECK(d.purpose.field == Field::tarmac);
  CHECK_FALSE(set_choice(d, "/purpose/field", 9));
  const auto spec = *spec_at(d, "/ledger/0/mass_kg");
  CHECK(refusal(-1, spec, UnitSystem::metric) ==
        std::optional<std::string>("must be above 0\u00a0kg, is −1\u00a0kg"));
  CHECK_FALSE(refusal(1, spec, UnitSystem::metric));
}

TEST_CASE("the ledger goes out and comes back as a table") {
  const auto ledger = dunnock().ledger;
  const auto back = ledger_from_csv(ledger_to_csv(ledger));
  REQUIRE(back.faults.empty());
  REQUIRE(back.items.size() == ledger.size());
  for (size_t i = 0; i < ledger.size(); ++i) {
    CHECK(back.items[i].name == ledger[i].name);
    CHECK(back.items[i].mass.si == ledger[i].mass.si);
    CHECK(back.items[i].mass.tolerance == ledger[i].mass.tolerance);
    CHECK(back.items[i].at.x.si == ledger[i].at.x.si);
    CHECK(back.items[i].moves == ledger[i].moves);
  }
  const auto bad =
      ledger_from_csv("name,group,mass_kg,x_m,y_m,z_m\nwing,airframe,-3,1,0,0\nwing,cargo,abc,1,0,0\n");
  REQUIRE(bad.faults.size() == 4);
  CHECK(bad.faults[0].where == "line 2, mass_kg");
  CHECK(ledger_from_csv("name,mass_kg\n").faults.size() == 4);
  CHECK(ledger_from_csv("\"a").faults.size() == 1);
  CHECK(std::get<std::vector<CsvRow>>(parse_csv("a,\"b,\"\"c\"\"\"\r\n"))[0][1] == "b,\"c\"");
}

TEST_CASE("schema and documentation are made from the description") {
  const auto read_doc = [](const char* name) {
    const auto text = read_text_file(fs::path(KRANICH_DOCS_DIR) / name);
    REQUIRE(text);
    return *text;
  };
  CHECK(read_doc("kranich.schema.json") == project_schema());
  CHECK(read_doc("file-format.md").find(project_fields_markdown()) != std::string::npos);
}

TEST_CASE("the shelves are in order") {
  const auto read = [](const char* name, ReadShelf (*reader)(std::string_view)) {
    const auto text = read_text_file(fs::path(KRANICH_DATA_DIR) / "shelf" / (std::string(name) + ".csv"));
    REQUIRE(text);
    const auto shelf = reader(*text);
    INFO(name);
    CHECK(shelf.faults.empty());
    return shelf.items;
  };
  const auto coils = read("coil_springs", read_coils);
  CHECK(coils.size() > 20);
  for (const auto& s : coils) {
    INFO(s.name);
    CHECK(force::find_wire(s.coil.wire));
    CHECK(s.coil.mean_diameter / s.coil.wire_diameter > 4);
    CHECK(s.coil.free_length > s.coil.wire_diameter * s.coil.total_turns);
  }
  for (const char* name : {"wires", "sheets", "plies"})
    for (const auto& s : read(name, read_stock)) {
      INFO(s.name);
      CHECK(force::find_material({}, s.material));
      CHECK(s.thickness > 0);
    }
  CHECK(read("gas_struts", read_struts).size() > 10);
  CHECK(read("pucks", read_pucks).size() > 5);
  for (const auto& s : read("cords", read_cords)) {
    INFO(s.name);
    REQUIRE(s.cord.curve.size() == 7);
    for (size_t i = 1; i < s.cord.curve.size(); ++i) CHECK(s.cord.curve[i].load > s.cord.curve[i - 1].load);
  }
}

TEST_CASE("a faulty shelf names line, column and what is allowed") {
  const auto shelf =
      read_struts("name,extended_force_N,progression,full_stroke_m\nA,-5,1.2,0.1\n,10,x,0.1\n");
  REQUIRE(shelf.faults.size() == 3);
  CHECK(shelf.faults[0].where == "line 2, extended_force_N");
  CHECK(shelf.faults[1].where == "line 3, name");
  CHECK(shelf.faults[2].what.find("number") != std::string::npos);
}
