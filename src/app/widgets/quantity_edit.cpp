// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/quantity_edit.h"

#include <QEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QStyle>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/theme.h"
#include "app/tongue.h"

namespace kranich::app {
namespace {

QString origin_mark(const Given& g) {
  switch (g.origin) {
    case Origin::by_default:
      return QObject::tr("default");
    case Origin::estimated:
      return QObject::tr("est.");
    case Origin::measured:
      return QObject::tr("meas.");
    case Origin::plan:
      return QObject::tr("plan");
    case Origin::undecided:
      return QObject::tr("open");
    case Origin::guessed:
      return QObject::tr("guess");
    case Origin::missing:
      return {};
  }
  return {};
}

void colour(QWidget* label, const QColor& c, bool italic = false) {
  QPalette p = label->palette();
  p.setColor(QPalette::WindowText, c);
  p.setColor(QPalette::ButtonText, c);
  p.setColor(QPalette::Text, c);
  label->setPalette(p);
  QFont f = label->font();
  f.setItalic(italic);
  label->setFont(f);
}

}  // namespace

QuantityRow::QuantityRow(Document& document, QString path, const QString& title, QWidget* parent)
    : QWidget(parent),
      document_(document),
      path_(path.toStdString()),
      label_(new QLabel(this)),
      field_(new QLineEdit(this)),
      unit_(new QLabel(this)),
      more_(new QToolButton(this)),
      hint_(new QLabel(this)) {
  setObjectName("row:" + path);
  field_->setObjectName("field:" + path);
  if (const auto s = spec_at(document_.design(), path_)) spec_ = *s;
  const QString name = title.isEmpty() ? in_tongue(spec_.title) : title;
  label_->setText(name);
  label_->setWordWrap(true);
  label_->setBuddy(field_);
  field_->setAccessibleName(name);
  field_->setAlignment(Qt::AlignRight);
  field_->setFont(figure_font(9));
  field_->setFixedWidth(86);
  unit_->setFixedWidth(42);
  more_->setFixedWidth(46);
  more_->setFont(text_font(7));
  more_->setAutoRaise(true);
  more_->setObjectName("origin:" + path);
  more_->setAccessibleName(tr("%1: where it comes from").arg(name));
  more_->setPopupMode(QToolButton::InstantPopup);
  auto* menu = new QMenu(more_);
  for (const auto& [origin, text] : {std::pair{Origin::measured, tr("measured")},
                                     {Origin::estimated, tr("estimated")},
                                     {Origin::plan, tr("from the plan")},
                                     {Origin::undecided, tr("not decided yet: may turn out within ±")}})
    menu->addAction(text, this, [this, o = origin] { choose_origin(o); });
  menu->addSeparator();
  menu->addAction(tr("a tolerance is typed behind the number: 1835 ± 3"))->setEnabled(false);
  more_->setMenu(menu);
  hint_->setFont(text_font(8));
  hint_->setWordWrap(true);
  hint_->hide();
  field_->installEventFilter(this);
  label_->installEventFilter(this);
  label_->setCursor(Qt::SizeHorCursor);
  label_->setToolTip(
      tr("Hold and drag left or right to try other values; in the field the arrow keys step it"));

  auto* line = new QHBoxLayout;
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(5);
  line->addWidget(label_, 1);
  line->addWidget(field_);
  line->addWidget(unit_);
  line->addWidget(more_);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 1, 0, 1);
  all->setSpacing(1);
  all->addLayout(line);
  all->addWidget(hint_);

  refresh_when_seen(
      this, &document_, [this] { show_value(); }, &Document::changed);
  connect(field_, &QLineEdit::textEdited, this, [this] {
    typed_ = true;
    follow_typing();
  });
  connect(field_, &QLineEdit::returnPressed, this, &QuantityRow::take_over);
  show_value();
}

void QuantityRow::show_value() {
  const auto at = given_at(document_.design(), path_);
  setEnabled(at.has_value());
  if (!at) return;
  spec_ = *spec_at(document_.design(), path_);
  const auto symbol = display_unit(spec_.kind, document_.units()).symbol;
  unit_->setText(QString::fromUtf8(symbol.data(), static_cast<int>(symbol.size())));
  const Given& g = *at;
  if (!typed_) {
    field_->setText(g.known() ? document_.say_number(g.si, spec_.kind) : QString());
    field_->setPlaceholderText(tr("unknown"));
  }
  QString more;
  if (g.tolerance > 0)
    more = "±" + document_.say_number(g.tolerance, spec_.kind);
  else
    more = origin_mark(g);
  if (g.origin == Origin::undecided) more += "?";
  more_->setText(more);
  more_->setEnabled(g.known());
  const bool by_default = g.origin == Origin::by_default, guessed = g.origin == Origin::guessed;
  colour(more_, Theme::now().grey, by_default || guessed);
  // A guess stands lighter than what somebody knows.
  colour(field_, guessed ? Theme::now().grey : Theme::now().ink, guessed);
  field_->setToolTip(
      g.known()
          ? tr("%1, %2%3")
                .arg(document_.say(g.si, spec_.kind),
                     by_default ? tr("a default: nobody gave it")
                     : guessed  ? tr("guessed from the answers")
                                : origin_mark(g),
                     g.tolerance > 0 ? tr(", ± %1").arg(document_.say(g.tolerance, spec_.kind)) : QString())
          : tr("not known yet: checks that need it say so"));
}

void QuantityRow::say(const QString& text, bool refusal) {
  field_->setProperty("refused", refusal);
  field_->style()->unpolish(field_);
  field_->style()->polish(field_);
  colour(hint_, refusal ? Theme::now().fails : Theme::now().accent);
  hint_->setText(text);
  hint_->setVisible(!text.isEmpty());
}

void QuantityRow::follow_typing() {
  const std::string text = as_typed(field_->text());
  if (field_->text().trimmed().isEmpty()) {
    say(tr("will be unknown"), false);
    return;
  }
  const auto parsed = parse_with_tolerance(text, spec_.kind, document_.units());
  if (const auto* error = std::get_if<ParseError>(&parsed)) {
    say(QString::fromStdString(error->message), true);
    return;
  }
  const auto& q = std::get<ParsedWithTolerance>(parsed);
  if (const auto why = refusal(q.value.si, spec_, document_.units()))
    say(QString::fromStdString(*why), true);
  else
    say("= " + with_decimal_mark(QString::fromStdString(q.understood)), false);
}

void QuantityRow::take_over() {
  if (!typed_) return;
  follow_typing();
  if (field_->property("refused").toBool()) return;  // stays as typed, with the reason below it
  typed_ = false;
  say({}, false);
  const QString text = field_->text().trimmed();
  double si = std::numeric_limits<double>::quiet_NaN();
  std::optional<double> tolerance;
  if (!text.isEmpty()) {
    const auto parsed =
        std::get<ParsedWithTolerance>(parse_with_tolerance(as_typed(text), spec_.kind, document_.units()));
    si = parsed.value.si;
    tolerance = parsed.tolerance;
  }
  document_.edit(tr("Set %1").arg(label_->text()), [&](Design& d) {
    if (const auto at = locate_given(d, path_)) put_entry(*at->given, si, tolerance);
  });
  show_value();
}

void put_entry(Given& g, double si, const std::optional<double>& tolerance) {
  g.si = si;
  if (tolerance) g.tolerance = *tolerance;
  if (!std::isfinite(si)) {
    g = Given();
  } else if (g.origin == Origin::missing || g.origin == Origin::by_default || g.origin == Origin::guessed) {
    // The half-range was of the guess, not of what is known now.
    if (g.origin == Origin::guessed && !tolerance) g.tolerance = 0;
    g.origin = Origin::plan;
  }
}

void QuantityRow::choose_origin(Origin origin) {
  document_.edit(tr("Say where %1 comes from").arg(label_->text()), [&](Design& d) {
    if (const auto at = locate_given(d, path_); at && at->given->known()) at->given->origin = origin;
  });
}

double QuantityRow::step() const {
  // About a two-hundredth of what is there, round in the unit on the screen; of nothing one unit.
  const double unit = display_unit(spec_.kind, document_.units()).to_si;
  const auto g = given_at(document_.design(), path_);
  const double there = g && g->known() ? std::abs(g->si / unit) : 0;
  if (there == 0) return unit;
  const double raw = there / 200;
  const double power = std::pow(10, std::floor(std::log10(raw)));
  const double share = raw / power;
  return unit * power * (share < 1.5 ? 1 : share < 3.5 ? 2 : share < 7.5 ? 5 : 10);
}

void QuantityRow::put(Design& d, double si) const {
  const auto at = locate_given(d, path_);
  if (!at) return;
  si = std::clamp(si, at->spec.least, at->spec.most);
  // What the entry would refuse (nothing at all where there must be something) stays as it was.
  if (!refusal(si, at->spec, document_.units())) put_entry(*at->given, si, std::nullopt);
}

bool QuantityRow::slide(QEvent* event) {
  const auto x = [&] { return static_cast<QMouseEvent*>(event)->globalPosition().x(); };
  switch (event->type()) {
    case QEvent::MouseButtonPress: {
      const auto g = given_at(document_.design(), path_);
      if (!g || !g->known() || static_cast<QMouseEvent*>(event)->button() != Qt::LeftButton) return false;
      slid_from_ = x();
      slide_start_ = g->si;
      slide_step_ = step();
      document_.begin_drag(tr("Try %1").arg(label_->text()));
      return true;
    }
    case QEvent::MouseMove: {
      if (!std::isfinite(slide_start_)) return false;
      // Four pixels a step: a hand's width is some half of what is there.
      const double steps = std::round((x() - slid_from_) / 4);
      document_.drag([&](Design& d) { put(d, slide_start_ + steps * slide_step_); });
      return true;
    }
    case QEvent::MouseButtonRelease:
      if (!std::isfinite(slide_start_)) return false;
      slide_start_ = std::numeric_limits<double>::quiet_NaN();
      document_.end_drag();
      return true;
    default:
      return false;
  }
}

bool QuantityRow::eventFilter(QObject* object, QEvent* event) {
  if (object == label_) return slide(event) || QWidget::eventFilter(object, event);
  if (object == field_ && event->type() == QEvent::KeyPress && !typed_) {
    const auto* key = static_cast<QKeyEvent*>(event);
    const int way = key->key() == Qt::Key_Up ? 1 : key->key() == Qt::Key_Down ? -1 : 0;
    const auto g = given_at(document_.design(), path_);
    if (way != 0 && g && g->known()) {
      const double by = step() * (key->modifiers() & Qt::ShiftModifier ? 10
                                  : key->modifiers() & Qt::AltModifier ? 0.1
                                                                       : 1);
      document_.edit(tr("Step %1").arg(label_->text()), [&](Design& d) { put(d, g->si + way * by); });
      return true;
    }
  }
  if (object == field_ && event->type() == QEvent::FocusOut && typed_) {
    take_over();
    if (typed_) {  // refused: the last good value comes back, the reason stays to be read
      typed_ = false;
      const QString why = hint_->text();
      show_value();
      say({}, false);
      colour(hint_, Theme::now().fails);
      hint_->setText(tr("%1 – kept %2").arg(why, field_->text()));
      hint_->show();
    }
  }
  if (object == field_ && event->type() == QEvent::KeyPress &&
      static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
    typed_ = false;
    say({}, false);
    show_value();
    return true;
  }
  return QWidget::eventFilter(object, event);
}

ChoiceRow::ChoiceRow(Document& document, QString path, const QString& title, QWidget* parent)
    : QWidget(parent), document_(document), path_(path.toStdString()), box_(new QComboBox(this)) {
  box_->setObjectName("choice:" + path);
  box_->setAccessibleName(title);
  auto* line = new QHBoxLayout(this);
  line->setContentsMargins(0, 1, 0, 1);
  auto* label = new QLabel(title, this);
  label->setBuddy(box_);
  label->setWordWrap(true);
  line->addWidget(label, 1);
  line->addWidget(box_);
  box_->setMaximumWidth(170);  // the panel is no wider for one long word
  if (const auto at = choice_at(document_.design(), path_))
    for (const auto n : at->names) box_->addItem(in_tongue(n));
  const auto show = [this] {
    if (const auto at = choice_at(document_.design(), path_)) box_->setCurrentIndex(at->index);
  };
  show();
  refresh_when_seen(this, &document_, show, &Document::changed);
  connect(box_, &QComboBox::activated, this, [this, title](int index) {
    document_.edit(tr("Choose %1").arg(title), [&](Design& d) { set_choice(d, path_, index); });
  });
}

}  // namespace kranich::app
