// SPDX-License-Identifier: GPL-3.0-or-later
//! Leg: the leg large with its parts under its load cases; true lengths and angles; the way to joints,
//! materials, jig and the sheets for the bench.
#include <QComboBox>
#include <QHeaderView>
#include <QTableWidget>
#include <cmath>
#include <map>

#include "app/document/when_seen.h"
#include "app/drawing/leg_pane.h"
#include "app/print/report.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/leg_switch.h"
#include "app/widgets/list_table.h"
#include "app/widgets/material_row.h"
#include "core/assess/strength_state.h"
#include "core/leg/geometry.h"
#include "core/shop/sheets.h"

namespace kranich::app {
namespace {

class LegPage : public StationPage {
 public:
  explicit LegPage(Document& document) : StationPage(document, Station::leg) {
    auto ahead = std::make_unique<LegPane>(document, LegPane::View::ahead);
    auto side = std::make_unique<LegPane>(document, LegPane::View::starboard);
    panes_ = {ahead.get(), side.get()};
    board()->add(std::move(ahead), {0, 0, 0.5, 1});
    board()->add(std::move(side), {0.5, 0, 0.5, 1});
    build_switch();
    heading(tr("Load case drawn"));
    cases_ = put(new QComboBox(this));
    cases_->setObjectName("load-case");
    cases_->setAccessibleName(tr("Load case drawn"));
    case_note_ = remark();
    case_note_->setObjectName("case-note");
    connect(cases_, &QComboBox::activated, this, [this](int i) {
      for (auto* p : panes_)
        p->load_case = i == 0 ? std::string() : cases_->itemData(i).toString().toStdString();
      board()->update();
      tell_case();
    });
    auto* sheets =
        button(tr("Sheets for the bench …"), tr("Jig, cut list, templates: full size as PDF, SVG, DXF"));
    sheets->setObjectName("open-sheets");
    connect(sheets, &QPushButton::clicked, this, [this] { make_shop_dialog(document_, window())->show(); });
    auto* lists = button(tr("Joints, materials, jig, lay-up …"),
                         tr("Pins, bolts and blocks; strengths; alignment; plies"));
    lists->setObjectName("open-leg-lists");
    connect(lists, &QPushButton::clicked, this,
            [this] { make_leg_dialog(document_, panes_[0]->leg, window())->show(); });
    add_findings(tr("What is left of each part"));
    remark(planning_caution())->setObjectName("leg-caution");
    for (const Leg& leg : document_.design().gear.legs) build_fields(leg);
    heading(tr("Load cases"), tr("shares of the historical rule, editable"));
    put(new TextRow(document_, "/load_factors/rule", tr("Rule that decides"), this));
    field("/load_factors/ultimate");
    model_factors_ = section([&] {
      for (const char* path :
           {"/load_factors/model_drag", "/load_factors/model_drag_rough", "/load_factors/model_side"})
        field(path);
    });
    full_size_factors_ = section([&] {
      for (const char* path : {"/load_factors/spin_up", "/load_factors/side_up", "/load_factors/side_in",
                               "/load_factors/side_out", "/load_factors/brake_up", "/load_factors/brake_drag",
                               "/load_factors/nose_up", "/load_factors/nose_aft",
                               "/load_factors/nose_forward", "/load_factors/nose_side"})
        field(path);
    });
    finish();
    build_lengths();
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed, &Document::view_changed);
    show_leg(LegSwitch::first(document_.design()));
  }

 private:
  void build_switch() {
    switch_ = put(new LegSwitch(document_, "leg", this));
    connect(switch_, &LegSwitch::chosen, this, [this](const QString& id) { show_leg(id.toStdString()); });
  }

  void build_fields(const Leg& l) {
    auto* box = new QWidget(this);
    auto* lay = new QVBoxLayout(box);
    lay->setContentsMargins(0, 6, 0, 0);
    lay->setSpacing(2);
    const QString base = leg_path(l.id);
    const auto row = [&](const QString& path, const QString& title = {}) {
      lay->addWidget(new QuantityRow(document_, base + path, title, box));
    };
    for (size_t i = 0; i < l.tubes.size(); ++i) {
      const QString tube = QStringLiteral("tubes/%1/").arg(i);
      lay->addWidget(
          new QLabel(QStringLiteral("<b>%1</b>").arg(text_of(l.tubes[i].name).toHtmlEscaped()), box));
      row(tube + "diameter_m");
      row(tube + "wall_m");
      lay->addWidget(new MaterialRow(document_, base + tube + "material", tr("Material"), box));
    }
    // What it is made as decides what is asked of it; all of it is there, what does not apply is hidden.
    Made& made = made_[l.id];
    const auto group = [&](const std::function<void(QVBoxLayout*, QWidget*)>& fill) {
      auto* part = new QWidget(box);
      auto* inner = new QVBoxLayout(part);
      inner->setContentsMargins(0, 0, 0, 0);
      inner->setSpacing(2);
      fill(inner, part);
      lay->addWidget(part);
      return part;
    };
    const auto rows = [&](QVBoxLayout* inner, QWidget* part,
                          std::initializer_list<std::pair<const char*, QString>> list) {
      for (const auto& [path, title] : list)
        inner->addWidget(new QuantityRow(document_, base + QString::fromLatin1(path), title, part));
    };
    made.wire = group([&](QVBoxLayout* inner, QWidget* part) {
      rows(inner, part, {{"spring/bent/wire_diameter_m", QString()}});
    });
    made.flat = group([&](QVBoxLayout* inner, QWidget* part) {
      rows(inner, part,
           {{"spring/bent/line/0/width_m", tr("Width at the clamp")},
            {"spring/bent/line/0/thickness_m", tr("Thickness at the clamp")}});
    });
    made.bends = group([&](QVBoxLayout* inner, QWidget* part) {
      inner->addWidget(new MaterialRow(document_, base + "spring/bent/material", tr("Material"), part));
    });
    made.strut = group([&](QVBoxLayout* inner, QWidget* part) {
      inner->addWidget(new ChoiceRow(document_, base + "section", tr("Section of the leg"), part));
      rows(inner, part,
           {{"tube_diameter_m", QString()},
            {"tube_wall_m", QString()},
            {"section_width_m", QString()},
            {"section_thickness_m", QString()}});
      inner->addWidget(new MaterialRow(document_, base + "material", tr("Material of the leg"), part));
      inner->addWidget(new ChoiceRow(document_, base + "printed", tr("If printed, its layers lie"), part));
    });
    row("axle_diameter_m");
    row("axle_wall_m");
    lay->addWidget(new MaterialRow(document_, base + "axle_material", tr("Material of the axle"), box));
    put(box);
    boxes_[l.id] = box;
  }

  void build_lengths() {
    auto* below = new QWidget(this);
    auto* all = new QVBoxLayout(below);
    all->setContentsMargins(10, 4, 10, 6);
    all->setSpacing(3);
    lengths_note_ = new QLabel(below);
    lengths_note_->setFont(text_font(8));
    all->addWidget(lengths_note_);
    lengths_ = new QTableWidget(below);
    lengths_->setObjectName("true-lengths");
    lengths_->setAccessibleName(tr("True lengths and angles"));
    lengths_->setColumnCount(9);
    lengths_->verticalHeader()->hide();
    lengths_->verticalHeader()->setDefaultSectionSize(22);
    lengths_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    all->addWidget(lengths_);
    put_below(below, 128);
  }

  void show_leg(const std::string& leg) {
    switch_->show_current(leg);
    for (auto* p : panes_) {
      p->leg = leg;
      p->load_case.clear();
    }
    for (const auto& [id, box] : boxes_) box->setVisible(id == leg);
    refresh();
    board()->set_share(panes_[0], {0, 0, 0.5, 1});
  }

  void refresh() {
    model_factors_->setVisible(document_.design().is_model());
    full_size_factors_->setVisible(!document_.design().is_model());
    for (const auto& [id, made] : made_) {
      const Leg* l = document_.design().gear.find(id);
      if (!l) continue;
      const bool bends = l->spring.kind == SpringKind::bending;
      const bool wire = l->spring.bent.form == BentForm::wire;
      made.wire->setVisible(bends && wire);
      made.flat->setVisible(bends && !wire);
      made.bends->setVisible(bends);
      made.strut->setVisible(!bends && l->tubes.empty());
    }
    const QString unit = document_.unit(Kind::length);
    const std::string word = in_words(
        document_.design().leg_word(document_.design().gear.leg(panes_[0]->leg)), {document_.units()});
    lengths_->setHorizontalHeaderLabels({tr("Member"), tr("Of"), tr("Section, %1").arg(unit),
                                         tr("True length, %1").arg(unit), tr("Rake"), tr("Cant"),
                                         tr("Drill, top"), tr("Drill, axle"), tr("No.")});
    std::vector<shop::MemberLine> members;
    for (auto& m : shop::members_of(document_.design()))
      if (m.leg == word) members.push_back(std::move(m));
    lengths_->setRowCount(static_cast<int>(members.size()));
    for (int r = 0; r < lengths_->rowCount(); ++r) {
      const auto& m = members[static_cast<size_t>(r)];
      const auto angle = [&](double v) {
        return std::isfinite(v) ? document_.say(v, Kind::angle) : QStringLiteral("–");
      };
      const QStringList cells{
          text_of(m.name),
          text_of(m.material),
          std::isfinite(m.diameter)
              ? document_.say_number(m.diameter, Kind::length) +
                    (std::isfinite(m.wall) ? " × " + document_.say_number(m.wall, Kind::length) : QString())
              : tr("unknown"),
          document_.say_number(m.geometry.length, Kind::length),
          angle(m.geometry.rake),
          angle(m.geometry.cant),
          angle(m.drill_top),
          angle(m.drill_axle),
          QString::number(m.count)};
      for (int c = 0; c < cells.size(); ++c) {
        auto* item = new QTableWidgetItem(cells[c]);
        if (c > 1) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        lengths_->setItem(r, c, item);
      }
    }
    lengths_->resizeColumnsToContents();
    QString between;
    for (size_t i = 1; i < members.size(); ++i)
      between += tr(" · %1 to %2: %3")
                     .arg(text_of(members[0].name), text_of(members[i].name),
                          document_.say(leg::angle_between(members[0].line, members[i].line), Kind::angle));
    lengths_note_->setText(
        members.empty()
            ? tr("<b>True lengths and angles</b> &nbsp; a leg that bends has its outline and "
                 "bending plan among the sheets")
            : tr("<b>True lengths and angles</b> &nbsp; results, not inputs; drill angles against hinge "
                 "line and axle, 90° is square%1")
                  .arg(between));
    refresh_cases();
    board()->update();
  }

  void refresh_cases() {
    const LegStrength* s = nullptr;
    for (const auto& x : document_.assessment().strengths)
      if (x.leg == panes_[0]->leg) s = &x;
    QStringList names;
    if (s)
      for (const auto& c : s->cases.cases) names << text_of(c.name);
    const QSignalBlocker quiet(cases_);
    cases_->clear();
    cases_->addItem(tr("the one that decides"));
    for (const auto& n : names) cases_->addItem(n, n);
    const int at = cases_->findData(text_of(panes_[0]->load_case));
    cases_->setCurrentIndex(panes_[0]->load_case.empty() || at < 0 ? 0 : at);
    tell_case();
  }

  void tell_case() {
    QString text;
    for (const auto& s : document_.assessment().strengths) {
      if (s.leg != panes_[0]->leg) continue;
      if (const auto i = panes_[0]->shown_case()) {
        const auto& c = s.cases.cases[*i];
        text = tr("<b>%1</b>: %2. Limit load up %3, aft %4, outboard %5; %6.")
                   .arg(text_of(c.name), text_of(c.working, document_.units()),
                        document_.say(c.force.z(), Kind::force), document_.say(c.force.x(), Kind::force),
                        document_.say(c.force.y(), Kind::force),
                        c.at_ground ? tr("where the tyre meets the ground") : tr("through the axle"));
      }
      for (const auto& m : s.cases.missing)
        text += tr("<br>Left out – %1.").arg(text_of(m, document_.units()));
    }
    case_note_->setText(text);
  }

  std::array<LegPane*, 2> panes_;
  QComboBox* cases_;
  QLabel* case_note_;
  LegSwitch* switch_ = nullptr;
  //! What a leg is made as: of its sections those that apply are shown.
  struct Made {
    QWidget *wire, *flat, *bends, *strut;
  };
  std::map<std::string, Made> made_;
  QWidget *model_factors_, *full_size_factors_;
  std::map<std::string, QWidget*> boxes_;
  QTableWidget* lengths_ = nullptr;
  QLabel* lengths_note_ = nullptr;
};

}  // namespace

StationPage* make_leg_page(Document& document) { return new LegPage(document); }

}  // namespace kranich::app
