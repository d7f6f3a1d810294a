// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document/when_seen.h"

#include <QEvent>
#include <utility>

namespace kranich::app {

WhenSeen::WhenSeen(QWidget* widget, std::function<void()> refresh)
    : QObject(widget), widget_(widget), refresh_(std::move(refresh)) {
  widget->installEventFilter(this);
}

void WhenSeen::note_change() {
  stale_ = !widget_->isVisible();
  if (!stale_) refresh_();
}

bool WhenSeen::eventFilter(QObject* object, QEvent* event) {
  // A part of the page may hide and show again within the refresh of the whole: once is enough.
  if (event->type() == QEvent::Show && std::exchange(stale_, false)) refresh_();
  return QObject::eventFilter(object, event);
}

}  // namespace kranich::app
