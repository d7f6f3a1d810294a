// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document/signals.h"

#include <sys/socket.h>
#include <unistd.h>

#include <QSocketNotifier>
#include <array>
#include <csignal>

namespace kranich::app {
namespace {

std::array<int, 2> ends{-1, -1};
constexpr std::array<int, 3> watched{SIGTERM, SIGINT, SIGHUP};

void handle(int) {
  const char byte = 1;
  [[maybe_unused]] const auto written = ::write(ends[0], &byte, 1);
}

}  // namespace

Signals::Signals() : notifier_(nullptr) {
  if (::socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, ends.data()) != 0) return;
  notifier_ = new QSocketNotifier(ends[1], QSocketNotifier::Read, this);
  connect(notifier_, &QSocketNotifier::activated, this, [this] {
    char byte = 0;
    if (::read(ends[1], &byte, 1) == 1) emit came();
  });
  struct sigaction action {};
  action.sa_handler = handle;
  action.sa_flags = SA_RESTART;
  for (const int s : watched) ::sigaction(s, &action, nullptr);
}

Signals::~Signals() {
  for (const int s : watched) ::signal(s, SIG_DFL);
  for (int& end : ends) {
    if (end >= 0) ::close(end);
    end = -1;
  }
}

}  // namespace kranich::app
