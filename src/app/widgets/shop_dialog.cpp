// SPDX-License-Identifier: GPL-3.0-or-later
//! Shop sheets: every sheet the design yields, to look at and to take to the bench as PDF, SVG or DXF.
#include <QComboBox>
#include <QDialog>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/print/templates.h"
#include "app/theme.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "app/widgets/message.h"
#include "app/widgets/quantity_edit.h"

namespace kranich::app {
namespace {

//! A sheet as it will lie on the bench, fitted to the window, its pages' edges drawn in.
class SheetView : public QWidget {
 public:
  explicit SheetView(QWidget* parent) : QWidget(parent) {
    setObjectName("sheet-view");
    setMinimumSize(380, 360);
  }
  void show_sheet(const shop::Sheet* sheet, Paper paper, UnitSystem units) {
    sheet_ = sheet;
    units_ = units;
    paper_ = paper;
    update();
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), Theme::now().desk);
    if (!sheet_) return;
    if (!sheet_->ready()) {
      p.setPen(Theme::now().ink);
      p.drawText(rect().adjusted(40, 40, -40, -40), Qt::AlignCenter | Qt::TextWordWrap,
                 QObject::tr("This sheet needs %1.").arg(text_of(std::get<Text>(sheet_->drawing), units_)));
      return;
    }
    const auto& d = std::get<shop::Drawing>(sheet_->drawing);
    const Tiling t = tiling_of(d, paper_);
    const auto box = d.bounds();
    const double width = t.columns * (t.width - Tiling::overlap) + Tiling::overlap;
    const double height = t.rows * (t.height - Tiling::overlap) + Tiling::overlap;
    const double k = std::min((this->width() - 24) / width, (this->height() - 24) / height);
    p.translate((this->width() - k * width) / 2, (this->height() - k * height) / 2);
    p.scale(k, k);
    p.fillRect(QRectF(0, 0, width, height), Qt::white);
    p.setPen(QPen(QColor("#b9b2a2"), 1 / k, Qt::DotLine));
    for (int c = 1; c < t.columns; ++c)
      p.drawLine(QPointF(c * (t.width - Tiling::overlap), 0),
                 QPointF(c * (t.width - Tiling::overlap), height));
    for (int r = 1; r < t.rows; ++r)
      p.drawLine(QPointF(0, r * (t.height - Tiling::overlap)),
                 QPointF(width, r * (t.height - Tiling::overlap)));
    p.translate(-box.low.x(), box.high.y());
    draw_shop(p, d, 0.8 / k);
  }

 private:
  const shop::Sheet* sheet_ = nullptr;
  UnitSystem units_ = UnitSystem::metric;
  Paper paper_ = Paper::a4;
};

class ShopDialog : public QDialog {
 public:
  ShopDialog(Document& document, QWidget* parent) : QDialog(parent), document_(document) {
    setObjectName("shop-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(QObject::tr("Sheets for the bench"));
    resize(1060, 700);
    auto* all = new QHBoxLayout(this);
    auto* left = new QVBoxLayout;
    list_ = new QListWidget(this);
    list_->setObjectName("sheets");
    list_->setAccessibleName(QObject::tr("Sheets"));
    list_->setFixedWidth(290);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setTextElideMode(Qt::ElideRight);
    left->addWidget(list_, 1);
    left->addWidget(new ChoiceRow(document, "/jig/paper", QObject::tr("Paper"), this));
    const auto button = [&](const QString& id, const QString& text, auto&& does) {
      auto* b = new QPushButton(text, this);
      b->setObjectName(id);
      QObject::connect(b, &QPushButton::clicked, this, does);
      left->addWidget(b);
      one_sheet_.push_back(b);
    };
    button("sheet-pdf", QObject::tr("This sheet as PDF, full size …"), [this] { ask("pdf"); });
    button("sheet-svg", QObject::tr("This sheet as SVG …"), [this] { ask("svg"); });
    button("sheet-dxf", QObject::tr("This sheet as DXF …"), [this] { ask("dxf"); });
    auto* every = new QPushButton(QObject::tr("All sheets into a folder …"), this);
    every->setObjectName("sheets-all");
    QObject::connect(every, &QPushButton::clicked, this, [this] {
      const QString folder = QFileDialog::getExistingDirectory(this, QObject::tr("Folder for the sheets"));
      if (!folder.isEmpty() && may_write_all(folder)) say(write_shop_sheets(document_, folder));
    });
    left->addWidget(every);
    said_ = new QLabel(this);
    said_->setObjectName("sheets-said");
    said_->setWordWrap(true);
    left->addWidget(said_);
    all->addLayout(left);
    auto* right = new QVBoxLayout;
    view_ = new SheetView(this);
    right->addWidget(view_, 1);
    notes_ = new QLabel(this);
    notes_->setWordWrap(true);
    notes_->setFont(text_font(8));
    right->addWidget(notes_);
    all->addLayout(right, 1);
    QObject::connect(list_, &QListWidget::currentRowChanged, this, [this](int) { show_current(); });
    QObject::connect(&document_, &Document::changed, this, [this] { refresh(); });
    QObject::connect(&document_, &Document::view_changed, this, [this] { refresh(); });
    refresh();
    list_->setCurrentRow(0);
  }

 private:
  void say(const std::optional<QString>& trouble) {
    said_->setText(trouble ? QStringLiteral("<span style='color:%1'>%2</span>")
                                 .arg(Theme::now().fails.name(), trouble->toHtmlEscaped())
                           : QObject::tr("written"));
  }
  void refresh() {
    sheets_ = sheets_of(document_);
    const int was = list_->currentRow();
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const auto& s : sheets_) {
      auto* item = new QListWidgetItem(
          s.ready() ? text_of(s.title) : QObject::tr("%1 – lacks something").arg(text_of(s.title)), list_);
      if (!s.ready()) item->setForeground(Theme::now().grey);
    }
    list_->setCurrentRow(std::min(was, list_->count() - 1));
    show_current();
  }
  const shop::Sheet* current() const {
    const int row = list_->currentRow();
    return row >= 0 && static_cast<size_t>(row) < sheets_.size() ? &sheets_[static_cast<size_t>(row)]
                                                                 : nullptr;
  }
  void show_current() {
    const auto* s = current();
    view_->show_sheet(s, document_.design().jig.paper, document_.units());
    for (auto* b : one_sheet_) b->setEnabled(s && s->ready());
    QString notes;
    if (s && s->ready()) {
      const auto& d = std::get<shop::Drawing>(s->drawing);
      const Tiling t = tiling_of(d, document_.design().jig.paper);
      notes = QObject::tr("<b>%1</b> · %2 · %n page(s)", nullptr, t.rows * t.columns)
                  .arg(text_of(d.title), d.scale == 1 ? QObject::tr("full size")
                                                      : QObject::tr("1:%1").arg(std::lround(1 / d.scale)));
      for (const auto& n : d.notes) notes += "<br>" + text_of(n).toHtmlEscaped();
    }
    notes_->setText(notes);
  }
  bool confirmed(const QString& what) {
    return Message::confirmed(QObject::tr("Sheets for the bench"), what, QObject::tr("Write"), this);
  }
  bool may_write_all(const QString& folder) {
    const SheetsAhead ahead = sheets_ahead(document_, folder);
    if (ahead.pages > 3 * Tiling::many_pages &&
        !confirmed(QObject::tr("All sheets together take %1 pages. Write them?").arg(ahead.pages)))
      return false;
    return ahead.there.isEmpty() ||
           confirmed(QObject::tr("%1 of these files are there already (%2%3). Replace them?")
                         .arg(ahead.there.size())
                         .arg(ahead.there.mid(0, 3).join(", "), ahead.there.size() > 3 ? " …" : ""));
  }
  void ask(const QString& format) {
    const auto* s = current();
    if (!s || !s->ready()) return;
    const int pages = tiling_of(std::get<shop::Drawing>(s->drawing), document_.design().jig.paper).pages();
    if (format == "pdf" && pages > Tiling::many_pages &&
        !confirmed(QObject::tr("This sheet takes %1 pages at its full size. Write it?").arg(pages)))
      return;
    const QString path = QFileDialog::getSaveFileName(
        this, QObject::tr("Write the sheet"), QString::fromStdString(shop::file_name(*s)) + "." + format);
    if (!path.isEmpty()) say(write_sheet(document_, *s, path));
  }

  Document& document_;
  QListWidget* list_;
  SheetView* view_;
  QLabel* notes_;
  QLabel* said_;
  std::vector<QPushButton*> one_sheet_;
  std::vector<shop::Sheet> sheets_;
};

}  // namespace

QWidget* make_shop_dialog(Document& document, QWidget* parent) { return new ShopDialog(document, parent); }

}  // namespace kranich::app
