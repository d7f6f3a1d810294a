// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/own_limit.h"

#include <QGridLayout>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/base/measure.h"

namespace kranich::app {

OwnLimitRow::OwnLimitRow(Document& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      told_(new QLabel(this)),
      entry_(new QWidget(this)),
      lower_(new QLineEdit(entry_)),
      upper_(new QLineEdit(entry_)),
      reason_(new QLineEdit(entry_)),
      note_(new QLabel(entry_)) {
  told_->setObjectName("own-limit");
  told_->setWordWrap(true);
  told_->setFont(text_font(8));
  told_->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
  connect(told_, &QLabel::linkActivated, this, [this] { open(!entry_->isVisible()); });
  auto* grid = new QGridLayout(entry_);
  grid->setContentsMargins(0, 0, 0, 0);
  const auto row = [&](int at, const QString& title, QLineEdit* field, const char* name) {
    auto* label = new QLabel(title, entry_);
    label->setBuddy(field);
    field->setObjectName(QString::fromLatin1(name));
    field->setAccessibleName(title);
    grid->addWidget(label, at, 0);
    grid->addWidget(field, at, 1, 1, 2);
    connect(field, &QLineEdit::returnPressed, this, &OwnLimitRow::set);
  };
  row(0, tr("At least"), lower_, "own-lower");
  row(1, tr("At most"), upper_, "own-upper");
  row(2, tr("Because"), reason_, "own-reason");
  reason_->setPlaceholderText(tr("rule, test, practice: it stands in the report"));
  auto* set_it = new QPushButton(tr("Judge by this"), entry_);
  set_it->setObjectName("own-set");
  auto* away = new QPushButton(tr("Ours again"), entry_);
  away->setObjectName("own-away");
  away_ = away;
  grid->addWidget(set_it, 3, 1);
  grid->addWidget(away, 3, 2);
  note_->setWordWrap(true);
  note_->setObjectName("own-note");
  grid->addWidget(note_, 4, 0, 1, 3);
  connect(set_it, &QPushButton::clicked, this, &OwnLimitRow::set);
  connect(away, &QPushButton::clicked, this, &OwnLimitRow::take_away);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->setSpacing(3);
  all->addWidget(told_);
  all->addWidget(entry_);
  entry_->hide();
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::changed);
}

const OwnLimit* OwnLimitRow::own() const {
  for (const OwnLimit& o : document_.design().own_limits)
    if (o.measure == measure_) return &o;
  return nullptr;
}

void OwnLimitRow::show_for(const Finding& finding) {
  if (finding.measure_id != measure_) {
    measure_ = finding.measure_id;
    open(false);
  }
  refresh();
}

void OwnLimitRow::refresh() {
  if (measure_.empty()) return;
  const OwnLimit* o = own();
  const Kind kind = measure(measure_).kind;
  QString s;
  if (o) {
    QStringList bounds;
    if (o->lower.known()) bounds << QStringLiteral("≥ ") + document_.say(o->lower, kind);
    if (o->upper.known()) bounds << QStringLiteral("≤ ") + document_.say(o->upper, kind);
    s = tr("Your limit: %1 – %2. ").arg(bounds.join(", "), text_of(o->reason)).toHtmlEscaped();
  }
  told_->setText(
      s + QStringLiteral("<a href='own'>%1</a>").arg(o ? tr("Change it …") : tr("A limit of your own …")));
  away_->setEnabled(o != nullptr);
}

void OwnLimitRow::open(bool on) {
  entry_->setVisible(on);
  note_->clear();
  if (!on) return;
  const OwnLimit* o = own();
  const Kind kind = measure(measure_).kind;
  for (const auto& [field, given] :
       {std::pair{lower_, o ? &o->lower : nullptr}, std::pair{upper_, o ? &o->upper : nullptr}}) {
    field->setText(given && given->known() ? document_.say_number(*given, kind) : QString());
    field->setPlaceholderText(document_.unit(kind));
  }
  reason_->setText(o ? text_of(o->reason) : QString());
  lower_->setFocus();
}

void OwnLimitRow::set() {
  const Kind kind = measure(measure_).kind;
  const auto refuse = [&](const QString& why) {
    note_->setText(QStringLiteral("<span style='color:%1'>%2</span>")
                       .arg(Theme::now().fails.name(), why.toHtmlEscaped()));
  };
  OwnLimit made;
  made.measure = measure_;
  for (const auto& [field, given] : {std::pair{lower_, &made.lower}, std::pair{upper_, &made.upper}}) {
    const QString text = field->text().trimmed();
    if (text.isEmpty()) continue;
    const auto parsed = parse_quantity(as_typed(text), kind, document_.units());
    if (const auto* error = std::get_if<ParseError>(&parsed))
      return refuse(tr("%1: %2").arg(field->accessibleName(), text_of(error->message)));
    *given = Given(std::get<ParsedQuantity>(parsed).si);
  }
  if (!made.lower.known() && !made.upper.known())
    return refuse(tr("At least, at most, or both must be given"));
  if (made.lower.known() && made.upper.known() && made.lower > made.upper)
    return refuse(tr("At least must not be above at most"));
  made.reason = reason_->text().trimmed().toStdString();
  if (made.reason.empty()) return refuse(tr("Say why: a limit without a reason is nobody's"));
  document_.edit(tr("Limit of your own"), [&](Design& d) {
    std::erase_if(d.own_limits, [&](const OwnLimit& o) { return o.measure == made.measure; });
    d.own_limits.push_back(made);
  });
  open(false);
  refresh();
}

void OwnLimitRow::take_away() {
  document_.edit(tr("Our limit again"), [&](Design& d) {
    std::erase_if(d.own_limits, [&](const OwnLimit& o) { return o.measure == measure_; });
  });
  open(false);
  refresh();
}

}  // namespace kranich::app
