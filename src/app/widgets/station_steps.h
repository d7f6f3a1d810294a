// SPDX-License-Identifier: GPL-3.0-or-later
//! The short list of steps that a station's page shows.
#pragma once

#include "app/widgets/steps.h"

namespace kranich::app {

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
