// SPDX-License-Identifier: GPL-3.0-or-later
//! Refreshes only what is seen: seven pages of a hundred rows each listen to the document, one of them shows.
#pragma once

#include <QObject>
#include <QWidget>
#include <functional>

namespace kranich::app {

//! Runs `refresh` at once while its widget can be seen, else when it is next shown: before it is painted.
class WhenSeen : public QObject {
  Q_OBJECT
 public:
  WhenSeen(QWidget* widget, std::function<void()> refresh);
  void note_change();

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  QWidget* widget_;
  std::function<void()> refresh_;
  bool stale_ = false;
};

//! Keeps a widget true to what sends these signals. It is taken to be true now.
template <class Sender, class... Signal>
void refresh_when_seen(QWidget* widget, Sender* sender, std::function<void()> refresh, Signal... signal) {
  auto* keeper = new WhenSeen(widget, std::move(refresh));
  (QObject::connect(sender, signal, keeper, &WhenSeen::note_change), ...);
}

}  // namespace kranich::app
