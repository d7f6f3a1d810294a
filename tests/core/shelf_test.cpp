// SPDX-License-Identifier: GPL-3.0-or-later
//! The shelves tried in legs: each kind of spring gets its offers, ranked by what speaks against them.
#include "core/spring/shelf.h"

#include <catch2/catch.hpp>

#include "core/assess/assess.h"
#include "core/force/suspension.h"
#include "core/io/shelves.h"
#include "demo.h"
#include "said.h"

using namespace kranich;
using spring::Candidate;
using spring::Offer;

namespace {

std::vector<spring::ShelfItem> shelf(const char* name, ReadShelf (*reader)(std::string_view)) {
  const auto text =
      read_text_file(std::filesystem::path(KRANICH_DATA_DIR) / "shelf" / (std::string(name) + ".csv"));
  REQUIRE(text);
  return reader(*text).items;
}

spring::Shelves shelves() {
  return {shelf("coil_springs", read_coils), shelf("gas_struts", read_struts), shelf("cords", read_cords),
          shelf("pucks", read_pucks),        shelf("wires", read_stock),       shelf("sheets", read_stock),
          shelf("plies", read_stock)};
}

struct Ranked {
  std::vector<Offer> offers;
  std::vector<Candidate> list;
  const Offer& best() const { return offers[list.front().index]; }
};
Ranked rank(const Leg& leg, double load) {
  const spring::Need need{load};
  Ranked r{spring::offers_for(leg, shelves(), {}, need), {}};
  r.list = spring::rank_offers(r.offers, {}, need);
  return r;
}

//! A leg that bends, of a model of some 8 kg.
Leg bending(BentForm form) {
  Leg l;
  l.axle = {{}, Given(0.4), Given(0.22), Given(-0.20)};
  l.wheel.diameter = Given(0.1);
  l.travel = Given(0.05);
  l.spring.kind = SpringKind::bending;
  BentLeg& b = l.spring.bent;
  b.form = form;
  b.material = form == BentForm::wire  ? "music wire"
               : form == BentForm::bow ? "carbon, unidirectional"
                                       : "soft aluminium";
  const auto point = [](double y, double z) {
    return BentPoint{{}, {{}, Given(0.4), Given(y), Given(z)}, Given(0.04), Given(0.004)};
  };
  b.line = {point(0.05, -0.05), point(0.2, -0.19), point(0.22, -0.20)};
  b.wire_diameter = Given(0.004);
  return l;
}

}  // namespace

TEST_CASE("what stands first has no objection while anything has none") {
  const auto d = demo("redshank");
  const auto r = rank(d.gear.main(), 41);
  REQUIRE(r.list.size() == r.offers.size());
  CHECK(r.list.size() > 20);
  bool objected = false;
  for (const auto& c : r.list) {
    if (!c.objection.empty()) objected = true;
    if (objected) CHECK_FALSE(c.objection.empty());
    CHECK(c.sag >= 0);
    CHECK(c.sag <= 1);
  }
  CHECK(r.list.front().objection.empty());
  for (size_t i = 1; i < r.list.size(); ++i) CHECK(r.list[i - 1].score <= r.list[i].score);
  // Fitting it gives what was promised.
  auto fitted = d;
  fitted.gear.main().spring = r.best().leg.spring;
  const auto path = force::suspension_of(fitted.gear.main(), {});
  CHECK(std::get<force::Suspension>(path).law.rate == Approx(r.list.front().rate));
}

TEST_CASE("a heavier aircraft wants a stiffer spring") {
  const auto d = demo("redshank");
  const auto light = rank(d.gear.main(), 30);
  const auto heavy = rank(d.gear.main(), 60);
  CHECK(heavy.list.front().rate + heavy.list.front().preload / 0.02 >
        light.list.front().rate + light.list.front().preload / 0.02);
  for (const auto& c : heavy.list)
    if (says(c.objection, "too soft")) CHECK(c.sag > 0.40);
}

TEST_CASE("cords come with the strands that sag right") {
  const auto d = demo("wheatear");
  const auto r = rank(d.gear.main(), 1850);
  REQUIRE(r.list.size() == shelves().cords.size());
  const auto& best = r.list.front();
  CHECK(best.sag == Approx(0.325).margin(0.08));
  const Cord& cord = r.best().leg.spring.cord;
  CHECK(std::fmod(cord.strands, 2) == 0);
  CHECK(says(r.best().buy, cord.shelf_name));
  CHECK(says(r.best().buy, " m of"));
  // A thinner cord needs more strands.
  double thin = 0;
  double thick = 0;
  for (const auto& o : r.offers) {
    if (o.name == "FM-C 10") thin = o.leg.spring.cord.strands;
    if (o.name == "FM-C 16") thick = o.leg.spring.cord.strands;
  }
  CHECK(thin > thick);
}

TEST_CASE("a bow comes with the plies it needs, thinner cloth with more") {
  const auto r = rank(bending(BentForm::bow), 40);
  REQUIRE(r.list.size() == shelves().plies.size());
  double thin = 0;
  double thick = 0;
  for (const auto& o : r.offers) {
    if (o.name == "FM-UD 150") thin = o.leg.spring.bent.plies;
    if (o.name == "FM-UD 450") thick = o.leg.spring.bent.plies;
  }
  CHECK(thin == Approx(3 * thick).margin(2.1));
  CHECK(r.list.front().sag == Approx(0.325).margin(0.1));
  CHECK(says(r.best().buy, "m²"));
}

TEST_CASE("wire and sheet are tried as they are; what takes a set is objected to") {
  const auto wires = rank(bending(BentForm::wire), 40);
  REQUIRE(wires.list.size() == shelves().wires.size());
  double last = 0;
  for (const auto& o : wires.offers) {  // rates rise with the fourth power of the wire
    if (o.leg.spring.bent.material != "music wire") continue;
    const auto path = force::suspension_of(o.leg, {});
    const double rate = std::get<force::Suspension>(path).law.rate;
    CHECK(rate > last);
    last = rate;
  }
  const auto sheets = rank(bending(BentForm::leaf), 40);
  REQUIRE(sheets.list.size() == shelves().sheets.size());
  bool set = false;
  for (const auto& c : sheets.list)
    if (c.sag >= 1) {
      set = true;
      CHECK(c.objection == "takes a set standing still");
    }
  CHECK(set);
  for (const auto& o : sheets.offers)
    CHECK(o.leg.spring.bent.line.front().thickness == Approx(o.leg.spring.bent.line.back().thickness));
}

TEST_CASE("gas struts and pucks have their own objections") {
  Leg l = demo("redshank").gear.main();
  l.spring.kind = SpringKind::gas_strut;
  l.spring.gas_strut.count = Given(1.0);
  const auto struts = rank(l, 120);
  REQUIRE(struts.list.size() == shelves().struts.size());
  for (const auto& c : struts.list)
    if (struts.offers[c.index].leg.spring.gas_strut.full_stroke < l.travel) {
      CHECK_FALSE(c.fits);
      CHECK(says(c.objection, "end"));
    }
  l.spring.kind = SpringKind::pucks;
  l.travel = Given(0.02);
  const auto pucks = rank(l, 400);
  REQUIRE(pucks.list.size() == shelves().pucks.size());
  for (const auto& o : pucks.offers) {
    CHECK(o.leg.spring.pucks.count >= 1);
    CHECK(o.leg.spring.pucks.assembled_length ==
          Approx(0.97 * o.leg.spring.pucks.count * o.leg.spring.pucks.thickness));
  }
}

TEST_CASE("kinds without a shelf have no offers") {
  Leg l = demo("dunnock").gear.main();
  CHECK(rank(l, 2500).offers.empty());
  l.spring.kind = SpringKind::linear;
  CHECK(rank(l, 2500).offers.empty());
}

TEST_CASE("an offer that lacks something says what") {
  Leg l = demo("redshank").gear.main();
  l.spring.coil.installed_length = Given();
  const auto r = rank(l, 41);
  REQUIRE_FALSE(r.list.empty());
  CHECK(says(r.list.front().objection, "needs"));
  CHECK_FALSE(r.list.front().fits);
}

TEST_CASE("a coil from the shelf takes the old one's place and keeps what belongs to that place") {
  Leg leg = demo("redshank").gear.main();
  REQUIRE(leg.spring.kind == SpringKind::coil);
  leg.spring.coil.unknown_keys = {{"colour", "\"red\""}};
  leg.spring.coil.count = Given(2.0);
  const auto offers = spring::offers_for(leg, shelves(), {}, spring::Need{40});
  REQUIRE_FALSE(offers.empty());
  for (const Offer& o : offers) {
    const Coil& c = o.leg.spring.coil;
    CHECK(c.unknown_keys == leg.spring.coil.unknown_keys);
    CHECK(c.count == Approx(2));
    CHECK(c.installed_length.si == leg.spring.coil.installed_length.si);
  }
  CHECK(std::any_of(offers.begin(), offers.end(),
                    [&](const Offer& o) { return !(o.leg.spring.coil == leg.spring.coil); }));
}
