// SPDX-License-Identifier: GPL-3.0-or-later
//! The gear in space: looked at from anywhere, along its way, cut open; and what it sweeps as a file.
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/drawing/shaded_view.h"
#include "app/theme.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "core/base/quantity.h"
#include "core/io/project_file.h"
#include "core/io/stl.h"

namespace kranich::app {
namespace {

class ShadedDialog : public QDialog {
 public:
  ShadedDialog(Document& document, QWidget* parent) : QDialog(parent), document_(document) {
    setObjectName("shaded-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Gear in space"));
    resize(1120, 720);
    auto* all = new QHBoxLayout(this);
    view_ = new ShadedView(document_, this);
    all->addWidget(view_, 1);
    auto* column = new QWidget(this);
    column->setFixedWidth(270);
    lay_ = new QVBoxLayout(column);
    lay_->setContentsMargins(6, 0, 0, 0);
    all->addWidget(column);

    heading(tr("From"));
    auto* from = new QHBoxLayout;
    for (const auto& [name, word, turn, down] :
         {std::tuple{"look-side", tr("port"), 0.0, 0.0}, std::tuple{"look-ahead", tr("ahead"), M_PI / 2, 0.0},
          std::tuple{"look-above", tr("above"), 0.0, M_PI / 2},
          std::tuple{"look-askew", tr("askew"), 0.7, 0.35}}) {
      auto* b = new QPushButton(word, column);
      b->setObjectName(name);
      from->addWidget(b);
      connect(b, &QPushButton::clicked, this, [this, t = turn, d = down] { view_->look(t, d); });
    }
    lay_->addLayout(from);
    heading(tr("On its way"));
    way_ = slider("shaded-way", tr("Gear down to stowed"), 0);
    connect(way_, &QSlider::valueChanged, this, [this](int v) { document_.set_gear_position(v / 1000.0); });
    told_ = new QLabel(column);
    told_->setObjectName("shaded-near");
    told_->setTextFormat(Qt::PlainText);
    told_->setWordWrap(true);
    lay_->addWidget(told_);
    heading(tr("Cut open"));
    across_ = new QComboBox(column);
    across_->setObjectName("shaded-cut");
    across_->setAccessibleName(tr("Plane that it is cut by"));
    across_->addItems({tr("whole"), tr("across, at a station"), tr("fore and aft, at a side"),
                       tr("level, at a waterline")});
    lay_->addWidget(across_);
    place_ = slider("shaded-place", tr("Where it is cut"), 500);
    other_ = new QCheckBox(tr("the other part"), column);
    other_->setObjectName("shaded-other");
    lay_->addWidget(other_);
    at_ = new QLabel(column);
    lay_->addWidget(at_);
    auto* outline = new QCheckBox(tr("fuselage as lines"), column);
    outline->setObjectName("shaded-outline");
    outline->setChecked(true);
    lay_->addWidget(outline);
    connect(across_, &QComboBox::currentIndexChanged, this, [this] { cut(); });
    connect(place_, &QSlider::valueChanged, this, [this] { cut(); });
    connect(other_, &QCheckBox::toggled, this, [this] { cut(); });
    connect(outline, &QCheckBox::toggled, view_, &ShadedView::show_outline);
    heading(tr("For other programs"));
    legs_ = new QComboBox(column);
    legs_->setObjectName("swept-leg");
    legs_->setAccessibleName(tr("Leg whose way is written"));
    lay_->addWidget(legs_);
    auto* file = new QPushButton(tr("What it sweeps, as STL …"), column);
    file->setObjectName("swept-stl");
    lay_->addWidget(file);
    said_ = new QLabel(column);
    said_->setObjectName("shaded-said");
    said_->setTextFormat(Qt::PlainText);
    said_->setWordWrap(true);
    lay_->addWidget(said_);
    auto* note = new QLabel(
        tr("Drag turns, right button shifts, wheel enlarges; arrows, + and −, Home; [ and ] move the "
           "gear. Tyres are grown as the clearance counts them. Seen for planning: what is near is "
           "measured on the aircraft."),
        column);
    note->setWordWrap(true);
    note->setFont(text_font(8));
    lay_->addStretch(1);
    lay_->addWidget(note);
    connect(file, &QPushButton::clicked, this, [this] {
      const QString path =
          QFileDialog::getSaveFileName(this, tr("Swept volume"), "swept.stl", tr("STL (*.stl)"));
      if (!path.isEmpty()) write_swept(path);
    });
    connect(view_, &ShadedView::scene_changed, this, [this] { refresh(); });
    refresh();
    cut();
  }

  //! Writes what the chosen leg sweeps, a solid each two degrees, and says so.
  void write_swept(const QString& path) {
    const Leg* leg = document_.design().gear.find(legs_->currentData().toString().toStdString());
    if (!leg) return;
    const auto solids = swept(*leg, radians(2));
    if (solids.empty()) {
      said_->setText(tr("how this leg swings is not all known"));
      return;
    }
    const auto why = write_file_atomically(path.toStdString(), stl_of(solids));
    said_->setText(
        why ? tr("%1: %2").arg(path, QString::fromStdString(*why))
            : tr("%1 solids, one each 2° of the swing, written to %2").arg(solids.size()).arg(path));
  }

 private:
  void heading(const QString& text) {
    auto* label = new QLabel(text, this);
    label->setFont(text_font(9.5, true));
    lay_->addWidget(label);
  }
  QSlider* slider(const char* name, const QString& words, int at) {
    auto* s = new QSlider(Qt::Horizontal, this);
    s->setObjectName(name);
    s->setAccessibleName(words);
    s->setToolTip(words);
    s->setRange(0, 1000);
    s->setValue(at);
    lay_->addWidget(s);
    return s;
  }
  void refresh() {
    const QSignalBlocker quiet(way_);
    way_->setValue(static_cast<int>(std::lround(1000 * document_.gear_position())));
    std::vector<const ScenePart*> near;
    for (const auto& part : view_->scene().parts)
      if (part.near && part.kind != SceneKind::keep_out) near.push_back(&part);
    std::sort(near.begin(), near.end(),
              [](const auto* a, const auto* b) { return a->near->distance < b->near->distance; });
    QStringList lines;
    for (const auto* part : near) lines << (part->near->too_near() ? "▲ " : "● ") + view_->words_of(*part);
    told_->setText(lines.isEmpty() ? tr("nothing known is near it") : lines.join("\n"));
    const QString chosen = legs_->currentData().toString();
    legs_->clear();
    for (const Leg& leg : document_.design().gear.legs)
      if (leg.retraction.fitted)
        legs_->addItem(text_of(document_.design().leg_word(leg), document_.units()),
                       QString::fromStdString(leg.id));
    if (const int index = legs_->findData(chosen); index >= 0) legs_->setCurrentIndex(index);
  }
  void cut() {
    const int axis = across_->currentIndex() - 1;
    place_->setEnabled(axis >= 0);
    other_->setEnabled(axis >= 0);
    at_->setText(QString());
    if (axis < 0) return view_->cut(std::nullopt);
    const auto [low, high] = view_->extent(axis);
    const double at = low + (high - low) * place_->value() / 1000.0;
    at_->setText(document_.say(at, Kind::length));
    view_->cut(SectionPlane{axis, at, !other_->isChecked()});
  }

  Document& document_;
  QVBoxLayout* lay_;
  ShadedView* view_;
  QSlider *way_, *place_;
  QComboBox *across_, *legs_;
  QCheckBox* other_;
  QLabel *told_, *at_, *said_;
};

}  // namespace

QWidget* make_shaded_dialog(Document& document, QWidget* parent) {
  return new ShadedDialog(document, parent);
}

bool write_swept_from(QWidget* dialog, const QString& path) {
  auto* shaded = dynamic_cast<ShadedDialog*>(dialog);
  if (shaded) shaded->write_swept(path);
  return shaded != nullptr;
}

}  // namespace kranich::app
