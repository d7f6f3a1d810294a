// SPDX-License-Identifier: GPL-3.0-or-later
//! A new project: nine questions, each with its small drawing, and beside them the aircraft that they lead
//! to; or what hurts, and the few numbers that decide it.
#pragma once

#include <QBoxLayout>
#include <QButtonGroup>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QWidget>
#include <vector>

#include "app/document/document.h"
#include "app/drawing/board.h"
#include "app/start/question_drawing.h"
#include "core/start/answers.h"
#include "core/start/hurts.h"

namespace kranich::app {

class StartPage : public QWidget {
  Q_OBJECT
 public:
  explicit StartPage(Document& document, QWidget* parent = nullptr);
  //! In the colours that are set now.
  void restyle() { refresh(); }
  //! Forgets what was answered, and shows the questions.
  void begin();
  const start::Answers& answers() const { return answers_; }
  //! What is said below the aircraft.
  QString said() const { return said_->text(); }

 signals:
  void made();     //!< the aircraft is in hand
  void without();  //!< everything is to be entered by hand
  void go_to(kranich::Station station, const QString& key);

 private:
  struct Row {
    Question question;
    QuestionDrawing* drawing;
    QLabel* hint;
    QLineEdit* entry = nullptr;
    QPushButton* keep = nullptr;
    QPushButton* open = nullptr;  //!< leaves it open again
    std::vector<QButtonGroup*> groups;
  };
  QWidget* questions();
  Row& add_row(QVBoxLayout* into, Question question, const QString& title);
  void add_choice(Row& row, QHBoxLayout* line, const std::vector<std::pair<QString, QString>>& buttons,
                  const std::function<void(int)>& chosen);
  void add_entry(Row& row, QHBoxLayout* line, const char* name, Kind kind,
                 std::optional<double> start::Answers::*member, bool start::Answers::*keep);
  QHBoxLayout* line_of(Row& row);
  void typed(Row& row, Kind kind, std::optional<double> start::Answers::*member);
  void clear(Row& row);  //!< its entry and its buttons
  void leave_open(Row& row);
  void refresh();
  void make();
  void show_hurt(const start::Hurt& hurt);
  void refresh_hurt();

  Document& document_;
  Document scratch_;
  start::Answers answers_;
  std::optional<start::Answers> made_with_;  //!< that the aircraft in hand was made from
  std::vector<std::unique_ptr<Row>> rows_;
  QStackedWidget* stack_;
  Board* board_;
  QLabel* said_;
  QPushButton* make_;
  QWidget* hurt_page_ = nullptr;
  QLabel* verdicts_ = nullptr;
  const start::Hurt* hurt_ = nullptr;
};

}  // namespace kranich::app
