// SPDX-License-Identifier: GPL-3.0-or-later
//! What the window asks or tells in a box of its own: our sign, our words on every button.
#pragma once

#include <QMessageBox>

namespace kranich::app {

class Message : public QMessageBox {
 public:
  enum class Sign { asks, warns };
  //! `text` is shown as it stands, never as markup.
  Message(Sign sign, const QString& title, const QString& text, QWidget* parent);
  //! An answer; the first is what Enter gives.
  QPushButton* answer(const QString& words, ButtonRole role, const char* name = nullptr);
  //! The answer by which all stays as it is: what Escape gives.
  QPushButton* stays(const QString& words);
  //! Shows something that only asks to be read, and goes when it is closed.
  static Message* tell(const QString& title, const QString& text, const char* name, QWidget* parent,
                       Qt::TextFormat format = Qt::PlainText);
  //! Asks whether to do something; false: no.
  static bool confirmed(const QString& title, const QString& question, const QString& yes, QWidget* parent);
};

}  // namespace kranich::app
