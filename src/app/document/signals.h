// SPDX-License-Identifier: GPL-3.0-or-later
//! SIGTERM, SIGINT and SIGHUP as a Qt signal: a handler may do next to nothing, so it writes a byte to a
//! socket that the event loop listens to.
#pragma once

#include <QObject>

class QSocketNotifier;

namespace kranich::app {

//! One at a time.
class Signals : public QObject {
  Q_OBJECT
 public:
  Signals();
  ~Signals() override;

 signals:
  void came();

 private:
  QSocketNotifier* notifier_;
};

}  // namespace kranich::app
