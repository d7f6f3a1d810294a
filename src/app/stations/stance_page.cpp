// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance: how it sits on its springs and tyres, and the shim that gives a wanted pitch.
#include <QLineEdit>

#include "app/drawing/panes.h"
#include "app/stations/page.h"
#include "app/theme.h"

namespace kranich::app {
namespace {

class StancePage : public StationPage {
 public:
  explicit StancePage(Document& document) : StationPage(document, Station::stance) {
    board()->add(std::make_unique<SidePane>(document, Overlay::stance), {0, 0, 1, 0.62});
    board()->add(std::make_unique<FrontPane>(document), {0, 0.62, 0.55, 0.38});
    board()->add(std::make_unique<PlanPane>(document), {0.55, 0.62, 0.45, 0.38});
    heading(tr("Stance wanted"), tr("wing to the ground, at rest"));
    field("/stance/wing_angle_low_deg", tr("From"));
    field("/stance/wing_angle_high_deg", tr("To"));
    field("/airframe/wing/incidence_deg", tr("Wing incidence to the reference"));
    heading(tr("Shim for a wanted pitch"), tr("this loading, whole equilibrium"));
    auto* row = new QWidget(this);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    auto* label = new QLabel(tr("Pitch wanted"), row);
    wanted_ = new QLineEdit(QStringLiteral("1.0"), row);
    wanted_->setObjectName("shim-target");
    wanted_->setAccessibleName(tr("Pitch wanted"));
    wanted_->setFont(figure_font(9));
    wanted_->setAlignment(Qt::AlignRight);
    wanted_->setFixedWidth(86);
    line->addWidget(label, 1);
    line->addWidget(wanted_);
    line->addWidget(new QLabel(QStringLiteral("°"), row));
    put(row);
    answer_ = remark();
    answer_->setObjectName("shim-answer");
    apply_ =
        button(tr("Put the shim in"), tr("Lowers the leg with its mount by that much; Ctrl+Z takes it back"));
    heading(tr("Springs and tyres"), tr("at the wheel"));
    field("/gear/main/travel_m", tr("Main legs, travel"));
    field("/gear/main/wheel/tyre_rate_N_per_m", tr("Main tyres, rate"));
    field("/gear/third/travel_m", tr("Third leg, travel"));
    field("/gear/third/wheel/tyre_rate_N_per_m", tr("Third tyre, rate"));
    add_findings(tr("What it does"));
    finish();
    connect(wanted_, &QLineEdit::textEdited, this, &StancePage::solve);
    connect(&document_, &Document::changed, this, &StancePage::solve);
    connect(&document_, &Document::view_changed, this, &StancePage::solve);
    connect(apply_, &QPushButton::clicked, this, [this] {
      if (!shim_) return;
      document_.edit(
          tr("Shim the %1 leg").arg(QString::fromLatin1(document_.design().third_word())),
          [by = *shim_](Design& d) {
            for (Point* p : {&d.gear.third.axle, &d.gear.third.top, &d.gear.third.retraction.pivot})
              p->z.si -= by;
          });
    });
    solve();
  }

 private:
  void solve() {
    shim_.reset();
    apply_->setEnabled(false);
    const auto parsed = parse_quantity(wanted_->text().toStdString(), Kind::angle, document_.units());
    if (const auto* error = std::get_if<ParseError>(&parsed)) {
      answer_->setText(QString::fromStdString(error->message));
      return;
    }
    const double target = std::get<ParsedQuantity>(parsed).si;
    const auto* l = document_.loading();
    if (!l || !l->mass.known() || !document_.assessment().wheels) {
      answer_->setText(tr("needs an aircraft that stands on its wheels"));
      return;
    }
    shim_ = stance::longer_legs_for_pitch(l->mass.down.mass, l->mass.down.at, *document_.assessment().wheels,
                                          {0}, target);
    const QString leg = QString::fromLatin1(document_.design().third_word());
    if (!shim_) {
      answer_->setText(tr("no shim under the %1 leg gives that").arg(leg));
      return;
    }
    const QString size =
        QString::fromStdString(format_quantity(std::abs(*shim_), Kind::length, document_.units()));
    answer_->setText(*shim_ >= 0 ? tr("<b>%1</b> shim under the %2 leg").arg(size, leg)
                                 : tr("let the %2 leg in by <b>%1</b>").arg(size, leg));
    apply_->setEnabled(std::abs(*shim_) > 1e-6 && !document_.before_drag());
  }
  QLineEdit* wanted_;
  QLabel* answer_;
  QPushButton* apply_;
  std::optional<double> shim_;
};

}  // namespace

StationPage* make_stance_page(Document& document) { return new StancePage(document); }

}  // namespace kranich::app
