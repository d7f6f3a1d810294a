// SPDX-License-Identifier: GPL-3.0-or-later
//! Work beside the interface: the one way in which the application has anything done on another thread.
#pragma once

#include <QFuture>
#include <QObject>
#include <atomic>
#include <functional>
#include <memory>

#include "core/base/progress.h"

namespace kranich::app {

//! One purpose's work: what is started calls off what was running for the same purpose. The work gets copies
//! of what it needs, asks its Progress whether to go on, and its result comes back on the interface's thread,
//! unless it has been called off meanwhile.
class Background : public QObject {
  Q_OBJECT
 public:
  explicit Background(QObject* parent = nullptr) : QObject(parent) {}
  ~Background() override;

  template <class Result>
  void start(std::function<Result(const Progress&)> work, std::function<void(Result)> done) {
    run([work = std::move(work), done = std::move(done)](const Progress& progress) {
      auto result = std::make_shared<Result>(work(progress));
      return std::function<void()>([done, result] { done(std::move(*result)); });
    });
  }
  void cancel();
  bool running() const { return wanted_ != nullptr; }
  double share() const { return share_; }  //!< of it that is done

 signals:
  void got_on();  //!< the share done is another

 private:
  using Work = std::function<std::function<void()>(const Progress&)>;
  void run(Work work);
  std::shared_ptr<std::atomic<bool>> wanted_;  //!< of the work under way; cleared when it is not any more
  QFuture<void> future_;
  double share_ = 0;
};

}  // namespace kranich::app
