// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/leg_switch.h"

#include <QHBoxLayout>

#include "app/document/when_seen.h"
#include "app/widgets/findings.h"

namespace kranich::app {
namespace {

QString button_text(const Design& d, const Leg& leg) {
  QString word = text_of(d.legs_word(leg), d.units);
  return capitalised(word);
}

}  // namespace

LegSwitch::LegSwitch(Document& document, const QString& prefix, QWidget* parent)
    : QWidget(parent), document_(document) {
  // Three to a line: more would not be read at the panel's width.
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setSpacing(3);
  int n = 0;
  for (const auto& leg : document.design().gear.legs) {
    auto* b = new QPushButton(button_text(document.design(), leg), this);
    b->setCheckable(true);
    b->setObjectName(prefix + "-" + text_of(leg.id));
    b->setProperty("leg", text_of(leg.id));
    group_.addButton(b);
    grid->addWidget(b, n / 3, n % 3);
    ++n;
  }
  connect(&group_, &QButtonGroup::buttonClicked, this,
          [this](QAbstractButton* b) { emit chosen(b->property("leg").toString()); });
  refresh_when_seen(
      this, &document_, [this] { rename(); }, &Document::changed);
}

void LegSwitch::rename() {
  const Design& d = document_.design();
  for (auto* b : group_.buttons())
    if (const Leg* leg = d.gear.find(b->property("leg").toString().toStdString())) {
      const QString text = button_text(d, *leg);
      if (b->text() != text) b->setText(text);
    }
}

void LegSwitch::show_current(const std::string& leg_id) {
  for (auto* b : group_.buttons())
    if (b->property("leg").toString() == text_of(leg_id)) b->setChecked(true);
}

std::string LegSwitch::first(const Design& d) {
  if (d.gear.has(LegRole::main)) return d.gear.main().id;
  return d.gear.legs.empty() ? std::string() : d.gear.legs[0].id;
}

}  // namespace kranich::app
