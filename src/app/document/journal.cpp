// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document/journal.h"

#include <QDir>
#include <QFileInfo>
#include <QImageReader>
#include <QRandomGenerator>
#include <QSettings>
#include <algorithm>

#include "app/document/document.h"
#include "core/io/book_file.h"
#include "core/model/describe_words.h"
#include "core/tasks/record.h"

namespace kranich::app {

//! What follows from design, Book and day; each part kept until what it follows from is another.
struct Journal::Kept {
  quint64 revision = 0;
  QString day, loading;
  std::optional<tasks::History> history;
  std::optional<tasks::Look> look;
  std::optional<tasks::Progress> progress;
  tasks::TaskTable table;
  std::vector<OwnTask> own;
  bool has_table = false;
};

Journal::Journal(Document& document) : document_(document), kept_(std::make_unique<Kept>()) {}
Journal::~Journal() = default;

void Journal::forget() {
  kept_->progress.reset();
  kept_->history.reset();
}

const tasks::TaskTable& Journal::table() {
  if (!kept_->has_table || kept_->own != document_.design().own_tasks) {
    kept_->progress.reset();
    const auto own =
        read_text_file((QSettings().fileName().section('/', 0, -2) + "/steps.csv").toStdString());
    kept_->table = task_table(document_.design(), own.value_or(""));
    kept_->own = document_.design().own_tasks;
    kept_->has_table = true;
  }
  return kept_->table;
}

const tasks::History& Journal::history() {
  if (!kept_->history) kept_->history.emplace(book_);
  return *kept_->history;
}

const tasks::Look& Journal::look() {
  if (!kept_->look || kept_->revision != document_.revision() || kept_->loading != document_.loading_name()) {
    kept_->progress.reset();
    kept_->revision = document_.revision();
    kept_->loading = document_.loading_name();
    kept_->look.emplace(document_.design(), document_.assessment(), document_.loading_name().toStdString());
  }
  return *kept_->look;
}

const tasks::Progress& Journal::progress() {
  const auto& steps = table();
  const auto& sight = look();
  if (!kept_->progress || kept_->day != today()) {
    kept_->day = today();
    kept_->progress = tasks::progress_of(steps, sight, history(), today().toStdString());
  }
  return *kept_->progress;
}

QStringList Journal::problems() {
  QStringList all;
  for (const auto& p : table().problems) all << QString::fromStdString(p);
  return all + faults_;
}

void Journal::begin(const QString& project, const std::string& text) {
  file_ = project.isEmpty() ? QString() : QString::fromStdString(book_beside(project.toStdString()).string());
  std::string read = text;
  if (!file_.isEmpty()) read = read_text_file(file_.toStdString(), size_t{64} << 20).value_or(text);
  auto book = read_book(read);
  book_ = std::move(book.book);
  faults_.clear();
  for (const Fault& f : book.faults)
    faults_ << tr("The Book, %1: %2").arg(QString::fromStdString(f.where), QString::fromStdString(f.what));
  chosen_ = {};
  forget();
  kept_->look.reset();
  emit changed();
}

std::optional<QString> Journal::follow_to(const QString& project) {
  const QString file = QString::fromStdString(book_beside(project.toStdString()).string());
  if (file == file_) return {};
  const auto there = read_book(read_text_file(file.toStdString(), size_t{64} << 20).value_or(""));
  for (const tasks::Entry& e : book_.entries) {
    const bool has = std::any_of(there.book.entries.begin(), there.book.entries.end(),
                                 [&](const tasks::Entry& other) { return other.id == e.id; });
    if (has) continue;
    if (const auto why = append_to_book(file.toStdString(), e)) return QString::fromStdString(*why);
  }
  // Pictures go with it.
  if (!file_.isEmpty())
    for (const tasks::Entry& e : book_.entries)
      for (const auto& p : e.pictures) {
        const QString to = QFileInfo(file).dir().filePath(QString::fromStdString(p));
        QDir().mkpath(QFileInfo(to).path());
        QFile::copy(picture_path(p), to);
      }
  file_ = file;
  auto now = read_book(read_text_file(file.toStdString(), size_t{64} << 20).value_or(""));
  if (!now.book.entries.empty()) book_ = std::move(now.book);
  forget();
  emit changed();
  return {};
}

std::optional<QString> Journal::add_all(const std::vector<tasks::Entry>& entries, int* taken) {
  for (const tasks::Entry& e : entries) {
    if (std::any_of(book_.entries.begin(), book_.entries.end(),
                    [&](const tasks::Entry& b) { return b.id == e.id; }))
      continue;
    if (const auto why = put(e)) return why;
    if (taken) ++*taken;
  }
  return {};
}

QString Journal::new_id() const {
  return QStringLiteral("%1-%2")
      .arg(clock().toString(QStringLiteral("yyyyMMddhhmmss")))
      .arg(QRandomGenerator::global()->generate(), 8, 16, QLatin1Char('0'));
}

tasks::Entry Journal::begun(tasks::Mark mark) const {
  tasks::Entry e;
  e.id = new_id().toStdString();
  e.at = clock().toString(Qt::ISODate).toStdString();
  // One entry after the other, also within a second: their order is read from their times.
  if (!book_.entries.empty() && book_.entries.back().at >= e.at && book_.entries.back().day() == e.day())
    e.at = QDateTime::fromString(QString::fromStdString(book_.entries.back().at), Qt::ISODate)
               .addSecs(1)
               .toString(Qt::ISODate)
               .toStdString();
  e.who = who().toStdString();
  e.mark = mark;
  const Design& d = document_.design();
  e.build_state = std::string(build_state_names[static_cast<size_t>(d.purpose.build_state)]);
  e.loading = document_.loading_name().toStdString();
  e.revision = d.about.revision;
  return e;
}

std::optional<QString> Journal::put(tasks::Entry entry) {
  if (!file_.isEmpty())
    if (const auto why = append_to_book(file_.toStdString(), entry)) return QString::fromStdString(*why);
  book_.entries.push_back(std::move(entry));
  forget();
  if (file_.isEmpty()) document_.note_unsaved_book();
  emit changed();
  return {};
}

std::optional<QString> Journal::write(tasks::Entry entry) { return put(std::move(entry)); }

std::optional<QString> Journal::tick(const tasks::Task& task, const tasks::Piece& piece, tasks::Entry entry,
                                     QStringList* remarks) {
  entry.task = task.id;
  entry.piece = piece.key;
  entry.piece_words = in_words(piece.words);
  // The table may be read anew while the design changes: what is needed of it is kept here.
  const tasks::Task of = task;
  const tasks::Piece on = piece;
  if (entry.mark == tasks::Mark::done || entry.mark == tasks::Mark::tried) {
    tasks::compare_readings(look(), history(), of, on, entry);
    if (tasks::fills(of) && !entry.readings.empty()) {
      std::vector<Text> told;
      const Design before = document_.design();
      document_.edit(tr("Reading: %1").arg(QString::fromStdString(of.id)),
                     [&](Design& d) { told = tasks::fill_design(d, of, on, entry); });
      // A change that cannot stand has been said by the document.
      if (remarks && told.empty() && before == document_.design())
        remarks->append(tr("The design holds these numbers already, or does not take them."));
      if (remarks)
        for (const Text& t : told)
          remarks->append(QString::fromStdString(in_words(t, {document_.units(), nullptr})));
    }
  }
  tasks::finish_entry(look(), of, on, entry);
  return put(std::move(entry));
}

void Journal::set_without(const std::string& question, bool none) {
  document_.edit(none ? tr("Answer a question") : tr("Ask again"), [&](Design& d) {
    std::erase_if(d.without, [&](const Without& w) { return w.question == question; });
    if (!none) return;
    Without w;
    w.question = question;
    d.without.push_back(w);
  });
}

QString Journal::keep_picture(const QString& picture, const tasks::Entry& entry, QString* why) const {
  QImageReader reader(picture);
  reader.setAutoTransform(true);  // turned upright as the camera says
  const QImage image = reader.read();
  if (image.isNull()) {
    *why =
        tr("%1 is no picture that can be read: %2").arg(QFileInfo(picture).fileName(), reader.errorString());
    return {};
  }
  if (file_.isEmpty()) {
    *why = tr("Save the project first: pictures lie in a folder beside it.");
    return {};
  }
  const QDir beside = QFileInfo(file_).dir();
  const QString folder =
      QFileInfo(file_).fileName().section(QStringLiteral(".book"), 0, 0) + QStringLiteral(".pictures");
  beside.mkpath(folder);
  const QString stem = QStringLiteral("%1/%2 %3")
                           .arg(folder, QString::fromStdString(std::string(entry.day())),
                                entry.task.empty() ? tr("note") : QString::fromStdString(entry.task));
  QString name = stem + QStringLiteral(".jpg");
  for (int i = 2; beside.exists(name); ++i) name = QStringLiteral("%1 %2.jpg").arg(stem).arg(i);
  if (!image.save(beside.filePath(name), "JPG", 90)) {
    *why = tr("%1 could not be written").arg(beside.filePath(name));
    return {};
  }
  return name;
}

QString Journal::picture_path(const std::string& relative) const {
  return QFileInfo(file_).dir().filePath(QString::fromStdString(relative));
}

QString Journal::who() const { return QSettings().value(QStringLiteral("who")).toString(); }
void Journal::set_who(const QString& name) { QSettings().setValue(QStringLiteral("who"), name.trimmed()); }

void Journal::choose(const std::string& task, const std::string& piece) {
  chosen_ = {task, piece};
  emit chosen_changed();
}

}  // namespace kranich::app
