// SPDX-License-Identifier: GPL-3.0-or-later
//! The aircraft's outline traced over a picture: one view at a time, the picture put to scale by two points
//! whose distance is known, level by two more.
#include <QButtonGroup>
#include <QComboBox>
#include <QDialog>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <array>
#include <cmath>

#include "app/document/when_seen.h"
#include "app/drawing/outline_pane.h"
#include "app/drawing/picture.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/list_table.h"
#include "app/widgets/quantity_edit.h"

namespace kranich::app {
namespace {

class OutlineDialog : public QDialog {
 public:
  OutlineDialog(Document& document, QWidget* parent) : QDialog(parent), document_(document) {
    setObjectName("outline-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Outline and pictures"));
    resize(1120, 720);
    auto* all = new QHBoxLayout(this);
    auto* column = new QWidget(this);
    column->setFixedWidth(330);
    lay_ = new QVBoxLayout(column);
    lay_->setContentsMargins(0, 0, 6, 0);
    board_ = new Board(document_, this);
    auto pane = std::make_unique<OutlinePane>(document_, [this] { two_clicked(); });
    pane_ = pane.get();
    board_->add(std::move(pane), {0, 0, 1, 1});

    auto* views = new QHBoxLayout;
    view_ = new QButtonGroup(this);
    for (const auto& [seen, name, word] : {std::tuple{Seen::side, "view-side", tr("Side")},
                                           std::tuple{Seen::front, "view-front", tr("From ahead")},
                                           std::tuple{Seen::plan, "view-plan", tr("From above")}}) {
      auto* b = pressed(name, word);
      views->addWidget(b);
      view_->addButton(b, static_cast<int>(seen));
    }
    lay_->addLayout(views);
    connect(view_, &QButtonGroup::idClicked, this, [this](int id) { see(static_cast<Seen>(id)); });

    heading(tr("Picture under it"));
    file_ = new QLabel(column);
    file_->setObjectName("picture-file");
    file_->setWordWrap(true);
    file_->setTextFormat(Qt::PlainText);
    lay_->addWidget(file_);
    auto* choose = new QPushButton(tr("Choose a picture …"), column);
    choose->setObjectName("choose-tracing");
    choose->setToolTip(tr("A photograph or three-view drawing: PNG, JPEG, SVG, or a PDF's first page"));
    lay_->addWidget(choose);
    connect(choose, &QPushButton::clicked, this, [this] {
      const QString file = QFileDialog::getOpenFileName(this, tr("Picture to trace"), {}, picture_files());
      if (!file.isEmpty()) lay_picture(file);
    });
    auto* tools = new QHBoxLayout;
    click_ = new QButtonGroup(this);
    click_->setExclusive(false);
    for (const auto& [click, name, word] :
         {std::tuple{ClickOn::scale, "click-scale", tr("Scale by two points")},
          std::tuple{ClickOn::level, "click-level", tr("Level by two points")}}) {
      auto* b = pressed(name, word);
      tools->addWidget(b);
      click_->addButton(b, static_cast<int>(click));
    }
    lay_->addLayout(tools);
    known_ = new QWidget(column);
    auto* known = new QHBoxLayout(known_);
    known->setContentsMargins(0, 0, 0, 0);
    known->addWidget(new QLabel(tr("They are apart by"), known_));
    length_ = new QLineEdit(known_);
    length_->setObjectName("known-length");
    length_->setAccessibleName(tr("Known distance of the two points"));
    length_->setPlaceholderText(document_.unit(Kind::length));
    known->addWidget(length_, 1);
    lay_->addWidget(known_);
    connect(length_, &QLineEdit::returnPressed, this, [this] { scale(); });
    said_ = new QLabel(column);
    said_->setObjectName("outline-says");
    said_->setWordWrap(true);
    lay_->addWidget(said_);
    for (const auto& [seen, path] :
         {std::pair{Seen::side, "/side_tracing/"}, std::pair{Seen::front, "/front_tracing/"},
          std::pair{Seen::plan, "/plan_tracing/"}}) {
      auto* box = new QWidget(column);
      auto* rows = new QVBoxLayout(box);
      rows->setContentsMargins(0, 0, 0, 0);
      const QString base = QString::fromLatin1(path);
      rows->addWidget(new FlagRow(document_, base + "shown", tr("Shown"), box));
      rows->addWidget(new FlagRow(document_, base + "mirrored", tr("Mirrored"), box));
      rows->addWidget(new QuantityRow(document_, base + "fade", tr("Seen by"), box));
      rows->addWidget(new QuantityRow(document_, base + "width_m", tr("As wide as"), box));
      rows->addWidget(new QuantityRow(document_, base + "left_x_m", tr("Lower left corner across"), box));
      rows->addWidget(new QuantityRow(document_, base + "bottom_z_m", tr("and up"), box));
      rows->addWidget(new QuantityRow(document_, base + "turned_deg", {}, box));
      rows_[static_cast<size_t>(seen)] = box;
      lay_->addWidget(box);
    }
    heading(tr("Trace"));
    traces_ = new QComboBox(column);
    traces_->setObjectName("trace-what");
    traces_->setAccessibleName(tr("Outline that is traced"));
    lay_->addWidget(traces_);
    connect(traces_, &QComboBox::activated, this, [this](int i) {
      pane_->trace = listed_[static_cast<size_t>(i)].first;
      board_->update();
    });
    auto* trace = pressed("click-trace", tr("Click along the outline"));
    click_->addButton(trace, static_cast<int>(ClickOn::trace));
    lay_->addWidget(trace);
    auto* body = new QPushButton(tr("Another body (nacelle, boom)"), column);
    body->setObjectName("add-body");
    lay_->addWidget(body);
    connect(body, &QPushButton::clicked, this, [this] {
      document_.edit(tr("Another body"), [](Design& d) {
        d.airframe.bodies.emplace_back();
        d.airframe.bodies.back().name = d.airframe.bodies.size() == 1 ? "fuselage" : "nacelle";
      });
    });
    auto* help = new QLabel(
        tr("Drag a point to move it. Delete removes it, Insert puts one behind it, C makes a corner of it or "
           "smooths it; right click lists these. Wing and tailplane are dragged by their corners, wheels and "
           "propellers by their middles. The mouse wheel enlarges what is under it."),
        column);
    help->setWordWrap(true);
    help->setFont(text_font(8));
    lay_->addWidget(help);
    auto* whole = new QPushButton(tr("All of it"), column);
    whole->setObjectName("show-all");
    lay_->addWidget(whole);
    connect(whole, &QPushButton::clicked, this, [this] {
      pane_->show_all();
      anew();
    });
    lay_->addStretch(1);
    connect(click_, &QButtonGroup::idClicked, this, [this](int id) {
      const auto click = static_cast<ClickOn>(id);
      use(pane_->click == click ? ClickOn::nothing : click);
    });
    auto* scroll = new QScrollArea(this);
    scroll->setWidget(column);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFixedWidth(350);
    all->addWidget(scroll);
    all->addWidget(board_, 1);
    refresh_when_seen(
        this, &document_, [this] { refresh(); }, &Document::changed);
    view_->button(static_cast<int>(Seen::side))->setChecked(true);
    see(Seen::side);
    setAcceptDrops(true);
    // Enter belongs to the length that is typed.
    for (auto* button : findChildren<QPushButton*>()) button->setAutoDefault(false);
  }

 protected:
  //! A picture dropped on it lies under the view that is seen.
  void dragEnterEvent(QDragEnterEvent* e) override {
    if (e->mimeData()->hasUrls()) e->acceptProposedAction();
  }
  void dropEvent(QDropEvent* e) override {
    for (const QUrl& url : e->mimeData()->urls())
      if (url.isLocalFile()) {
        lay_picture(url.toLocalFile());
        e->acceptProposedAction();
        return;
      }
  }

 private:
  QPushButton* pressed(const char* name, const QString& text) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(QString::fromLatin1(name));
    b->setCheckable(true);
    return b;
  }
  void heading(const QString& text) {
    lay_->addWidget(new QLabel("<b>" + text.toHtmlEscaped() + "</b>", this));
  }
  void anew() { board_->set_share(pane_, {0, 0, 1, 1}); }

  void see(Seen seen) {
    pane_->seen = seen;
    pane_->show_all();
    use(ClickOn::nothing);
    list_traces();
    refresh();
    anew();
  }
  void use(ClickOn click) {
    pane_->click = click;
    pane_->picks.clear();
    for (auto* b : click_->buttons()) b->setChecked(click_->id(b) == static_cast<int>(click));
    known_->setEnabled(false);
    said_->clear();
    board_->update();
  }
  void list_traces() {
    listed_ = traces_of(document_.design(), pane_->seen);
    traces_->clear();
    int at = 0;
    for (size_t i = 0; i < listed_.size(); ++i) {
      traces_->addItem(listed_[i].second);
      if (listed_[i].first == pane_->trace) at = static_cast<int>(i);
    }
    traces_->setEnabled(!listed_.empty());
    click_->button(static_cast<int>(ClickOn::trace))->setEnabled(!listed_.empty());
    if (listed_.empty()) return;
    traces_->setCurrentIndex(at);
    pane_->trace = listed_[static_cast<size_t>(at)].first;
  }

  void lay_picture(const QString& file) {
    const QImage image = picture_image(file);
    if (image.isNull()) {
      said_->setText(tr("%1 cannot be read as a picture").arg(file).toHtmlEscaped());
      return;
    }
    // As large as what is drawn there, till it is put to scale.
    const QRectF box = pane_->bounds();
    document_.edit(tr("Picture to trace"), [&](Design& d) {
      Picture& p = d.*OutlinePane::picture_of(pane_->seen);
      p.file = picture_name(document_, file);
      p.shown = true;
      if (p.width.known() && p.left_x.known() && p.bottom_z.known()) return;
      const double high = box.width() * image.height() / image.width();
      p.width = Given(box.width(), Origin::estimated);
      p.left_x = Given(box.left(), Origin::estimated);
      p.bottom_z = Given(box.center().y() - high / 2, Origin::estimated);
    });
    pane_->show_all();
    anew();
  }

  void two_clicked() {
    const Eigen::Vector2d a(pane_->picks[0].x(), pane_->picks[0].y());
    const Eigen::Vector2d b(pane_->picks[1].x(), pane_->picks[1].y());
    if (pane_->click == ClickOn::scale) {
      said_->setText(tr("As it lies they are apart by %1: type what it is in truth, and Enter")
                         .arg(document_.say((b - a).norm(), Kind::length)));
      known_->setEnabled(true);
      length_->setFocus();
      length_->selectAll();
      return;
    }
    document_.edit(tr("Level the picture"),
                   [&](Design& d) { level_picture(d.*OutlinePane::picture_of(pane_->seen), a, b); });
    use(ClickOn::nothing);
    said_->setText(tr("Turned to be level"));
  }

  void scale() {
    if (pane_->picks.size() != 2) return;
    const auto parsed = parse_quantity(as_typed(length_->text()), Kind::length, document_.units());
    const auto* q = std::get_if<ParsedQuantity>(&parsed);
    if (!q || !(q->si > 0)) {
      said_->setText(q ? tr("must be more than nothing")
                       : QString::fromStdString(std::get<ParseError>(parsed).message).toHtmlEscaped());
      return;
    }
    const Eigen::Vector2d a(pane_->picks[0].x(), pane_->picks[0].y());
    const Eigen::Vector2d b(pane_->picks[1].x(), pane_->picks[1].y());
    document_.edit(tr("Scale the picture"),
                   [&](Design& d) { scale_picture(d.*OutlinePane::picture_of(pane_->seen), a, b, q->si); });
    use(ClickOn::nothing);
    pane_->show_all();
    anew();
    said_->setText(tr("To scale by %1").arg(document_.say(q->si, Kind::length)));
  }

  void refresh() {
    const Picture& p = pane_->picture();
    file_->setText(p.file.empty() ? tr("none: choose a photograph or a three-view drawing")
                                  : text_of(p.file));
    for (size_t i = 0; i < rows_.size(); ++i)
      rows_[i]->setVisible(i == static_cast<size_t>(pane_->seen) && !p.file.empty());
    for (const ClickOn click : {ClickOn::scale, ClickOn::level})
      click_->button(static_cast<int>(click))->setEnabled(!p.file.empty());
    if (traces_of(document_.design(), pane_->seen).size() != listed_.size()) list_traces();
  }

  Document& document_;
  QVBoxLayout* lay_;
  Board* board_;
  OutlinePane* pane_;
  QButtonGroup *view_, *click_;
  QLabel *file_, *said_;
  QWidget* known_;
  QLineEdit* length_;
  std::array<QWidget*, 3> rows_{};
  QComboBox* traces_;
  std::vector<std::pair<Trace, QString>> listed_;
};

}  // namespace

QWidget* make_outline_dialog(Document& document, QWidget* parent) {
  return new OutlineDialog(document, parent);
}

}  // namespace kranich::app
