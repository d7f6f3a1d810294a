// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/quantity_edit.h"

#include <QEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QStyle>
#include <QVBoxLayout>

#include "app/theme.h"

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
    case Origin::missing:
      return {};
  }
  return {};
}

void colour(QLabel* label, const QColor& c, bool italic = false) {
  QPalette p = label->palette();
  p.setColor(QPalette::WindowText, c);
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
      more_(new QLabel(this)),
      hint_(new QLabel(this)) {
  setObjectName("row:" + path);
  field_->setObjectName("field:" + path);
  if (const auto s = spec_at(document_.design(), path_)) spec_ = *s;
  const QString name =
      title.isEmpty() ? QString::fromUtf8(spec_.title.data(), static_cast<int>(spec_.title.size())) : title;
  label_->setText(name);
  label_->setWordWrap(true);
  label_->setBuddy(field_);
  field_->setAccessibleName(name);
  field_->setAlignment(Qt::AlignRight);
  field_->setFont(figure_font(9));
  field_->setFixedWidth(86);
  unit_->setFixedWidth(42);
  more_->setFixedWidth(40);
  more_->setFont(text_font(7));
  hint_->setFont(text_font(8));
  hint_->setWordWrap(true);
  hint_->hide();
  field_->installEventFilter(this);

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

  connect(&document_, &Document::changed, this, &QuantityRow::show_value);
  connect(field_, &QLineEdit::textEdited, this, [this] {
    typed_ = true;
    follow_typing();
  });
  connect(field_, &QLineEdit::returnPressed, this, &QuantityRow::take_over);
  show_value();
}

void QuantityRow::show_value() {
  Design copy = document_.design();
  const auto at = locate_given(copy, path_);
  setEnabled(at.has_value());
  if (!at) return;
  spec_ = at->spec;
  const auto symbol = display_unit(spec_.kind, document_.units()).symbol;
  unit_->setText(QString::fromUtf8(symbol.data(), static_cast<int>(symbol.size())));
  const Given& g = *at->given;
  if (!typed_) {
    field_->setText(g.known() ? QString::fromStdString(format_number(g.si, spec_.kind, document_.units()))
                              : QString());
    field_->setPlaceholderText(tr("unknown"));
  }
  QString more;
  if (g.tolerance > 0)
    more = "±" + QString::fromStdString(format_number(g.tolerance, spec_.kind, document_.units()));
  else
    more = origin_mark(g);
  more_->setText(more);
  const bool by_default = g.origin == Origin::by_default;
  colour(more_, Theme::now().grey, by_default);
  field_->setToolTip(
      g.known() ? tr("%1, %2%3")
                      .arg(QString::fromStdString(format_quantity(g.si, spec_.kind, document_.units())),
                           by_default ? tr("a default: nobody gave it") : origin_mark(g),
                           g.tolerance > 0 ? tr(", ± %1").arg(QString::fromStdString(
                                                 format_quantity(g.tolerance, spec_.kind, document_.units())))
                                           : QString())
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
  const std::string text = field_->text().toStdString();
  if (field_->text().trimmed().isEmpty()) {
    say(tr("will be unknown"), false);
    return;
  }
  const auto parsed = parse_quantity(text, spec_.kind, document_.units());
  if (const auto* error = std::get_if<ParseError>(&parsed)) {
    say(QString::fromStdString(error->message), true);
    return;
  }
  const auto& q = std::get<ParsedQuantity>(parsed);
  if (const auto why = refusal(q.si, spec_, document_.units()))
    say(QString::fromStdString(*why), true);
  else
    say("= " + QString::fromStdString(q.understood), false);
}

void QuantityRow::take_over() {
  if (!typed_) return;
  follow_typing();
  if (field_->property("refused").toBool()) return;  // stays as typed, with the reason below it
  typed_ = false;
  say({}, false);
  const QString text = field_->text().trimmed();
  double si = std::numeric_limits<double>::quiet_NaN();
  if (!text.isEmpty())
    si = std::get<ParsedQuantity>(parse_quantity(text.toStdString(), spec_.kind, document_.units())).si;
  document_.edit(tr("Set %1").arg(label_->text()), [&](Design& d) {
    if (const auto at = locate_given(d, path_)) {
      at->given->si = si;
      at->given->origin = !std::isfinite(si) ? Origin::missing
                          : at->given->origin == Origin::missing || at->given->origin == Origin::by_default
                              ? Origin::plan
                              : at->given->origin;
    }
  });
  show_value();
}

bool QuantityRow::eventFilter(QObject* object, QEvent* event) {
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
  line->addWidget(label, 1);
  line->addWidget(box_);
  if (const auto at = choice_at(document_.design(), path_))
    for (const auto n : at->names) box_->addItem(QString::fromUtf8(n.data(), static_cast<int>(n.size())));
  const auto show = [this] {
    if (const auto at = choice_at(document_.design(), path_)) box_->setCurrentIndex(at->index);
  };
  show();
  connect(&document_, &Document::changed, this, show);
  connect(box_, &QComboBox::activated, this, [this, title](int index) {
    document_.edit(tr("Choose %1").arg(title), [&](Design& d) { set_choice(d, path_, index); });
  });
}

}  // namespace kranich::app
