// SPDX-License-Identifier: GPL-3.0-or-later
//! A step on the screen: the card where it is read, ticked or set aside.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>
#include <map>

#include "app/document/document.h"
#include "app/document/journal.h"

namespace kranich::app {

//! A step's text, reason, stop in words, with this design's numbers.
QString step_text(Journal& journal, const tasks::Task& task, const tasks::Piece& piece,
                  const std::string& text, UnitSystem units);
//! What was typed for a reading, as the core reads it: decimals with a point, "yes" and "no".
std::string reading_typed(const tasks::Reading& reading, const QString& typed);
//! "How are the legs moved? 14 steps hang on it."
QString question_text(const tasks::Hanging& question);
//! One step for one piece.
class StepCard : public QFrame {
  Q_OBJECT
 public:
  StepCard(Document& document, QWidget* parent = nullptr);
  //! What is typed stays while it is the same step.
  void show_box(const std::string& task, const std::string& piece);
  const std::string& task() const { return task_; }
  const std::string& piece() const { return piece_; }
  QString said() const { return said_ ? said_->text() : QString(); }

 signals:
  void ticked();

 private:
  void build();
  void refresh();
  //! Done, or tried where a gate is open.
  tasks::Mark done_mark() const;
  void write(tasks::Mark mark);
  void add_picture();
  //! What is typed so far, as an entry; what of it could not be understood.
  struct Draft {
    tasks::Entry entry;
    std::map<size_t, QString> unread;  //!< by reading
    QString trouble;                   //!< the first, with the field's name
  };
  Draft draft(tasks::Mark mark) const;
  void say(const QString& text, bool trouble);

  Document& document_;
  Journal& journal_;
  std::string task_, piece_;
  QVBoxLayout* outside_;
  QWidget* body_ = nullptr;  //!< made anew for each step
  QVBoxLayout* all_ = nullptr;
  QLabel *head_, *text_, *gates_, *history_, *said_ = nullptr;
  QPushButton *done_, *aside_, *kept_;
  QLineEdit *reason_, *note_, *who_, *hours_, *cost_, *source_;
  struct Row {
    std::string name;
    QLineEdit* field;
    QLabel* foretold;
  };
  std::vector<Row> rows_;
  class QButtonGroup* choice_ = nullptr;
  std::vector<std::string> pictures_;
  QLabel* pictures_said_ = nullptr;
  QStringList asked_;  //!< what was odd about what is typed, asked about already
};

}  // namespace kranich::app
