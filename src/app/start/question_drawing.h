// SPDX-License-Identifier: GPL-3.0-or-later
//! The small drawing beside each question of a new project: it shows what has been answered.
#pragma once

#include <QWidget>

#include "core/start/answers.h"

namespace kranich::app {

enum class Question { build, craft, gear, mass, span, length, wing, engine, field };

class QuestionDrawing : public QWidget {
  Q_OBJECT
 public:
  QuestionDrawing(Question question, QWidget* parent);
  void show_answers(const start::Answers& answers);
  QSize sizeHint() const override { return {92, 46}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  Question question_;
  start::Answers answers_;
};

}  // namespace kranich::app
