// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/widgets/book_view.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QIcon>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

#include "app/drawing/picture.h"
#include "app/theme.h"
#include "app/widgets/findings.h"
#include "app/widgets/message.h"
#include "core/io/book_file.h"
#include "core/io/project_file.h"
#include "core/tasks/words.h"

namespace kranich::app {

namespace {

constexpr QSize thumbnail{72, 54};
constexpr size_t most_thumbnails = 3;

//! The pictures of an entry side by side, small; null where none can be read.
QPixmap thumbnails(const std::vector<QImage>& images) {
  if (images.empty()) return {};
  QPixmap strip(thumbnail.width() * static_cast<int>(images.size()), thumbnail.height());
  strip.fill(Qt::transparent);
  QPainter p(&strip);
  int x = 0;
  for (const QImage& image : images) {
    const QImage small = image.scaled(thumbnail - QSize(4, 0), Qt::KeepAspectRatio, Qt::SmoothTransformation);
    p.drawImage(QPoint(x, (thumbnail.height() - small.height()) / 2), small);
    x += thumbnail.width();
  }
  return strip;
}

}  // namespace

BookView::BookView(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), journal_(document.journal()) {
  auto* lines = new QVBoxLayout(this);
  lines->setContentsMargins(12, 0, 12, 8);
  table_ = new QTableWidget(0, 5, this);
  table_->setObjectName("bench-book-table");
  table_->setAccessibleName(tr("The Book"));
  table_->setHorizontalHeaderLabels({tr("Day"), tr("Who"), tr("What"), tr("For"), tr("Read, said, seen")});
  table_->horizontalHeader()->setSectionResizeMode(4, QHeaderView::Stretch);
  table_->verticalHeader()->hide();
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setShowGrid(false);
  table_->setWordWrap(true);
  table_->setIconSize(QSize(thumbnail.width() * static_cast<int>(most_thumbnails), thumbnail.height()));
  lines->addWidget(table_, 1);
  said_ = new QLabel(this);
  said_->setObjectName("bench-book-said");
  said_->setWordWrap(true);
  said_->setFont(text_font(8.5));
  said_->hide();
  lines->addWidget(said_);
  auto* buttons = new QHBoxLayout;
  sums_ = new QLabel(this);
  sums_->setObjectName("bench-sums");
  sums_->setFont(text_font(8.5));
  buttons->addWidget(sums_, 1);
  const auto button = [&](const char* id, const QString& words, auto does) {
    auto* b = new QPushButton(words, this);
    b->setObjectName(QString::fromLatin1(id));
    connect(b, &QPushButton::clicked, this, does);
    buttons->addWidget(b);
  };
  strike_ = new QLineEdit(this);
  strike_->setObjectName("bench-strike-reason");
  strike_->setAccessibleName(tr("Why an entry does not count"));
  strike_->setPlaceholderText(tr("why it does not count"));
  strike_->setMaximumWidth(180);
  buttons->addWidget(strike_);
  button("bench-strike", tr("Strike out"), [this] { strike(); });
  button("bench-csv-out", tr("CSV out …"), [this] { csv_out(); });
  button("bench-csv-in", tr("CSV in …"), [this] { csv_in(); });
  lines->addLayout(buttons);
}

void BookView::fill(const QString& wanted) {
  // By their times: two books laid together stand in any order.
  std::vector<tasks::Entry> entries = journal_.book().entries;
  std::stable_sort(entries.begin(), entries.end(),
                   [](const tasks::Entry& a, const tasks::Entry& b) { return a.at < b.at; });
  std::set<std::string> struck;
  double hours = 0, cost = 0;
  for (const auto& e : entries)
    if (e.mark == tasks::Mark::struck) struck.insert(e.strikes);
  table_->setRowCount(0);
  const UnitSystem units = document_.units();
  for (auto e = entries.rbegin(); e != entries.rend(); ++e) {
    const bool out = struck.count(e->id) > 0;
    if (!out) {
      hours += tasks::hours_of(*e);
      cost += tasks::cost_of(*e);
    }
    QStringList told;
    for (const Text& t : tasks::told(*e)) told << text_of(t, units);
    std::vector<QImage> images;
    for (const auto& p : e->pictures) {
      if (images.size() < most_thumbnails)
        if (const QImage image = picture_image(journal_.picture_path(p)); !image.isNull())
          images.push_back(image);
      told << (QFileInfo::exists(journal_.picture_path(p))
                   ? tr("picture %1").arg(text_of(p))
                   : tr("picture %1 (the file is missing)").arg(text_of(p)));
    }
    const QStringList cells{text_of(e->day()), text_of(e->who), text_of(tasks::heading_of(*e), units),
                            text_of(e->piece_words), told.join("; ")};
    if (!wanted.isEmpty() && !cells.join(' ').contains(wanted, Qt::CaseInsensitive)) continue;
    const int row = table_->rowCount();
    table_->insertRow(row);
    for (int c = 0; c < 5; ++c) {
      auto* item = new QTableWidgetItem(cells[c]);
      item->setToolTip(out ? tr("%1 (struck out)").arg(cells[c]) : cells[c]);
      item->setTextAlignment(Qt::AlignLeft | Qt::AlignTop);
      if (out) {
        QFont f = text_font(9);
        f.setStrikeOut(true);
        item->setFont(f);
        item->setForeground(Theme::now().grey);
      }
      table_->setItem(row, c, item);
    }
    if (const QPixmap strip = thumbnails(images); !strip.isNull()) {
      QIcon icon;
      icon.addPixmap(strip);
      table_->item(row, 4)->setIcon(icon);
    }
    table_->item(row, 0)->setData(Qt::UserRole, text_of(e->id));
  }
  table_->resizeRowsToContents();
  for (int c = 0; c < 4; ++c) table_->resizeColumnToContents(c);
  table_->setColumnWidth(2, std::min(table_->columnWidth(2), 220));
  sums_->setText(tr("%1 entries · %2 hours · cost %3 · %4")
                     .arg(entries.size())
                     .arg(hours)
                     .arg(cost)
                     .arg(journal_.on_disk() ? QFileInfo(journal_.file()).fileName()
                                             : tr("kept with the project once it is saved")));
}

void BookView::strike() {
  const auto items = table_->selectedItems();
  QString why;
  if (items.isEmpty())
    why = tr("Which entry? Choose its line.");
  else if (strike_->text().trimmed().isEmpty())
    why = tr("An entry is struck out with a reason: write why it does not count.");
  if (why.isEmpty()) {
    tasks::Entry e = journal_.begun(tasks::Mark::struck);
    e.strikes = table_->item(items[0]->row(), 0)->data(Qt::UserRole).toString().toStdString();
    e.reason = strike_->text().trimmed().toStdString();
    if (const auto trouble = journal_.write(e))
      why = *trouble;
    else
      strike_->clear();
  }
  said_->setText(html(why));
  said_->setVisible(!why.isEmpty());
}

void BookView::csv_out() {
  const QString path = QFileDialog::getSaveFileName(this, tr("The Book as CSV"), "book.csv");
  if (path.isEmpty()) return;
  if (const auto why = write_file_atomically(path.toStdString(), book_to_csv(journal_.book())))
    Message::tell(tr("The Book"), QString::fromStdString(*why), "book-trouble", this);
}

void BookView::csv_in() {
  const QString path =
      QFileDialog::getOpenFileName(this, tr("Entries from CSV"), {}, tr("Tables (*.csv);;All files (*)"));
  if (path.isEmpty()) return;
  const auto text = read_text_file(path.toStdString(), size_t{64} << 20);
  if (!text) {
    Message::tell(tr("The Book"), tr("%1 cannot be read, or is over 64 MB.").arg(path), "book-trouble", this);
    return;
  }
  const auto read = book_from_csv(*text);
  int taken = 0;
  const auto why = journal_.add_all(read.entries, &taken);
  QStringList told{tr("Entries taken over: %1.").arg(taken)};
  for (size_t i = 0; i < read.faults.size() && i < 8; ++i)
    told << QStringLiteral("%1: %2").arg(text_of(read.faults[i].where), text_of(read.faults[i].what));
  if (why) told << *why;
  said_->setText(html(told.join('\n')));
  said_->show();
}

}  // namespace kranich::app
