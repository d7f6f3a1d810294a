// SPDX-License-Identifier: GPL-3.0-or-later
//! Steps on the screen: the card of one, where it is read, ticked or set aside, and the short list of those
//! that a station's page shows.
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
QString step_text(Journal& journal, const work::Task& task, const work::Piece& piece, const std::string& text,
                  UnitSystem units);
//! What a reading should say: "12.4° ± 0.3°", "at most 1 mm", empty where nothing is foretold.
QString foretold_text(const work::Reading& reading, const work::Foretold& foretold, UnitSystem units);
//! A reading as it was entered.
QString read_text(const work::Read& read, UnitSystem units);
//! "How are the legs moved? 14 steps hang on it."
QString question_text(const work::Hanging& question);
//! A step's name on the screen: what its id says behind the dot.
QString short_name(const work::Task& task);
//! The sign before a step: its state by shape and colour.
void draw_state(class QPainter& painter, const QPointF& centre, double size, work::State state);

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
  void tick();
  void set_aside();
  void keep();
  void add_picture();
  work::Entry draft(work::Mark mark, bool* good);
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
  work::State state_ = work::State::open;
  QStringList asked_;  //!< what was odd about what is typed, asked about already
};

//! The open steps of a station whose gates are done, at most seven; what waits behind them; questions in the
//! place of steps. One of them opens into its card.
class StationSteps : public QWidget {
  Q_OBJECT
 public:
  static constexpr size_t most = 7;
  StationSteps(Document& document, Station station, QWidget* parent = nullptr);

 private:
  void refresh();
  Document& document_;
  Journal& journal_;
  Station station_;
  QLabel* heading_;
  QVBoxLayout* rows_;
  QPushButton* rest_;
  StepCard* card_;
  std::pair<std::string, std::string> open_;
};

}  // namespace kranich::app
