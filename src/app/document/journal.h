// SPDX-License-Identifier: GPL-3.0-or-later
//! The Book in hand and where the work stands: beside the document, outside its undo.
#pragma once

#include <QDateTime>
#include <QObject>
#include <QString>
#include <QStringList>
#include <functional>
#include <memory>
#include <optional>

#include "core/tasks/progress.h"

namespace kranich::app {

class Document;

class Journal : public QObject {
  Q_OBJECT
 public:
  explicit Journal(Document& document);
  ~Journal() override;

  const tasks::TaskTable& table();
  const tasks::Book& book() const { return book_; }
  const tasks::History& history();
  //! Of the design, the Book and the day as they are; worked out when first asked for after a change.
  const tasks::Progress& progress();
  //! Its own assessment of the design, for texts and predictions.
  const tasks::Look& look();
  //! Lines of the table and of the Book that could not be read.
  QStringList problems();

  //! Another project is in hand: its Book is the one beside its file, or this text (a demonstration's).
  void begin(const QString& project, const std::string& text);
  //! The project is saved there from now on: entries that its Book lacks are written into it. Why not, or
  //! nothing.
  std::optional<QString> follow_to(const QString& project);
  //! Takes over entries of another Book (CSV, a safety copy): those whose ids it has not. How many.
  std::optional<QString> add_all(const std::vector<tasks::Entry>& entries, int* taken = nullptr);

  //! An entry with day, name, project's state filled in, ready to be filled further.
  tasks::Entry begun(tasks::Mark mark) const;
  //! Ticks: compares the readings, fills the design, writes the entry. Trouble in words, or nothing. What
  //! could not be filled is told in `remarks`.
  std::optional<QString> tick(const tasks::Task& task, const tasks::Piece& piece, tasks::Entry entry,
                              QStringList* remarks = nullptr);
  //! Answers a question that hangs: there is none of it, told in the design (undo takes it back), or asks
  //! again.
  void set_without(const std::string& question, bool none);
  //! Writes any other entry.
  std::optional<QString> write(tasks::Entry entry);

  //! Whether the Book lies in a file; else it is kept here until the project is saved.
  bool on_disk() const { return !file_.isEmpty(); }
  QString file() const { return file_; }
  //! Puts a picture's copy into the folder beside the Book, upright, named by date and step: its name there
  //! relative to the Book. Trouble in `why`.
  QString keep_picture(const QString& picture, const tasks::Entry& entry, QString* why) const;
  //! Where a picture of an entry lies.
  QString picture_path(const std::string& relative) const;

  QString who() const;
  void set_who(const QString& name);
  QString today() const { return clock().toString(QStringLiteral("yyyy-MM-dd")); }
  std::function<QDateTime()> clock = [] { return QDateTime::currentDateTime(); };
  //! Which box the pages lead to: the one chosen on Bench.
  void choose(const std::string& task, const std::string& piece);
  const std::pair<std::string, std::string>& chosen() const { return chosen_; }

 signals:
  void changed();         //!< the Book
  void chosen_changed();  //!< somebody wants to see one step on Bench

 private:
  void forget();
  std::optional<QString> put(tasks::Entry entry);
  QString new_id() const;

  Document& document_;
  tasks::Book book_;
  QString file_;
  QStringList faults_;
  std::pair<std::string, std::string> chosen_;
  struct Kept;
  std::unique_ptr<Kept> kept_;
};

}  // namespace kranich::app
