// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document/background.h"

#include <QThreadPool>
#include <QtConcurrent>

namespace kranich::app {
namespace {

//! Two, so that cures need not wait for ten thousand landings.
QThreadPool& pool() {
  static QThreadPool threads;
  threads.setMaxThreadCount(2);
  return threads;
}

}  // namespace

Background::~Background() {
  cancel();
  future_.waitForFinished();  // it would report to an object that is gone
}

void Background::cancel() {
  if (wanted_) *wanted_ = false;
  wanted_.reset();
}

void Background::run(Work work) {
  cancel();
  future_.waitForFinished();
  wanted_ = std::make_shared<std::atomic<bool>>(true);
  share_ = 0;
  future_ = QtConcurrent::run(&pool(), [this, wanted = wanted_, work = std::move(work)] {
    const auto done = work([this, wanted, told = 0.0](double share) mutable {
      if (share < told + 0.01) return wanted->load();  // more often nobody sees
      told = share;
      QMetaObject::invokeMethod(this, [this, wanted, share] {
        if (wanted != wanted_) return;
        share_ = share;
        emit got_on();
      });
      return wanted->load();
    });
    if (!*wanted) return;
    QMetaObject::invokeMethod(this, [this, wanted, done] {
      if (wanted != wanted_) return;
      wanted_.reset();
      done();
    });
  });
}

}  // namespace kranich::app
