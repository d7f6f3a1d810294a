// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/page.h"

#include <QHBoxLayout>
#include <utility>

#include "app/theme.h"
#include "app/widgets/station_steps.h"

namespace kranich::app {

StationPage::StationPage(Document& document, Station station, QWidget* parent)
    : QWidget(parent),
      document_(document),
      station_(station),
      board_(new Board(document, this)),
      panel_(new QVBoxLayout),
      left_(new QVBoxLayout),
      scroll_(nullptr) {
  setObjectName("page:" + word_of_file(station_id(station)));
  auto* inner = new QWidget;
  inner->setLayout(panel_);
  panel_->setContentsMargins(14, 10, 10, 10);
  panel_->setSpacing(2);
  auto* scroll = scroll_ = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setFixedWidth(330);
  scroll->setWidget(inner);
  left_->setContentsMargins(0, 0, 0, 0);
  left_->setSpacing(0);
  left_->addWidget(board_, 1);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addLayout(left_, 1);
  row->addWidget(scroll);
}

QLabel* StationPage::heading(const QString& text, const QString& note) {
  auto* label =
      new QLabel(note.isEmpty() ? QStringLiteral("<b>%1</b>").arg(text.toHtmlEscaped())
                                : QStringLiteral("<b>%1</b> &nbsp;<span style='font-size:8pt'>%2</span>")
                                      .arg(text.toHtmlEscaped(), note.toHtmlEscaped()),
                 this);
  label->setContentsMargins(0, panel_->count() ? 8 : 0, 0, 2);
  label->setWordWrap(true);
  return put(label);
}

QuantityRow* StationPage::field(const char* path, const QString& title) {
  return put(new QuantityRow(document_, QString::fromLatin1(path), title, this));
}
ChoiceRow* StationPage::choice(const char* path, const QString& title) {
  return put(new ChoiceRow(document_, QString::fromLatin1(path), title, this));
}

void StationPage::place(const QString& path, const QString& what) {
  for (const auto& [key, word] :
       {std::pair{"x_m", tr("station")}, std::pair{"y_m", tr("side")}, std::pair{"z_m", tr("waterline")}})
    put(new QuantityRow(document_, QStringLiteral("%1/%2").arg(path, QLatin1String(key)),
                        QStringLiteral("%1, %2").arg(what, word), this));
}

QButtonGroup* StationPage::one_of(const std::vector<std::pair<const char*, QString>>& buttons) {
  auto* row = new QWidget(this);
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(4);
  auto* group = new QButtonGroup(row);
  for (size_t i = 0; i < buttons.size(); ++i) {
    auto* b = new QPushButton(buttons[i].second, row);
    b->setObjectName(QString::fromLatin1(buttons[i].first));
    b->setCheckable(true);
    b->setChecked(i == 0);
    b->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    group->addButton(b, static_cast<int>(i));
    line->addWidget(b);
  }
  put(row);
  return group;
}

QLabel* StationPage::remark(const QString& text) {
  auto* label = new QLabel(text, this);
  label->setWordWrap(true);
  label->setFont(text_font(8));
  return put(label);
}

QPushButton* StationPage::button(const QString& text, const QString& tip) {
  auto* b = new QPushButton(text, this);
  b->setToolTip(tip);
  b->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);  // a long text must not widen the panel
  return put(b);
}

QWidget* StationPage::section(const std::function<void()>& fill) {
  auto* box = new QWidget(this);
  auto* inside = new QVBoxLayout(box);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(2);
  QVBoxLayout* outside = std::exchange(panel_, inside);
  fill();
  panel_ = outside;
  return put(box);
}

QWidget* StationPage::fold(const QString& title, const QString& note, const std::function<void()>& fill) {
  auto* line = put(new Fold(title, note, this));
  QWidget* inside = section(fill);
  line->set_inside(inside);
  return inside;
}

Fold::Fold(const QString& title, const QString& note, QWidget* parent)
    : QPushButton(parent), title_(title), note_(note) {
  setObjectName("fold");
  setCheckable(true);
  setFlat(true);
  setCursor(Qt::PointingHandCursor);
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  connect(this, &QPushButton::toggled, this, &Fold::show_state);
  show_state(false);
}

void Fold::set_inside(QWidget* inside) {
  inside_ = inside;
  inside_->setProperty("fold", QVariant::fromValue<QObject*>(this));
  show_state(isChecked());
}

void Fold::show_state(bool open) {
  setText(QStringLiteral("%1 %2%3").arg(open ? QStringLiteral("▾") : QStringLiteral("▸"), title_,
                                        note_.isEmpty() ? QString() : QStringLiteral(" · %1").arg(note_)));
  setAccessibleName(title_);
  if (inside_) inside_->setVisible(open);
}

void Fold::open_around(QWidget* widget) {
  for (QWidget* w = widget; w; w = w->parentWidget())
    if (auto* fold = qobject_cast<Fold*>(w->property("fold").value<QObject*>())) fold->setChecked(true);
}

void StationPage::add_findings(const QString& title) {
  heading(title, tr("worst first · choose one to see why"));
  findings_ = put(new FindingList(document_, station_, this));
}

void StationPage::finish() {
  if (station_ != Station::bench) put(new StationSteps(document_, station_, this));
  panel_->addStretch(1);
}

void StationPage::put_above(QWidget* widget, int stretch) {
  left_->insertWidget(left_->indexOf(board_), widget, stretch);
}

void StationPage::put_below(QWidget* widget, int height) {
  widget->setFixedHeight(height);
  left_->addWidget(widget);
}

}  // namespace kranich::app
