// SPDX-License-Identifier: GPL-3.0-or-later
//! The shelf below Spring's board.
#pragma once

#include <QLabel>
#include <QTableWidget>
#include <QWidget>
#include <vector>

#include "app/document/document.h"
#include "core/spring/shelf.h"

namespace kranich::app {

//! Things of the shelf for the leg's kind of spring, ranked; double-click fits one, chosen ones are compared.
class ShelfPanel : public QWidget {
  Q_OBJECT
 public:
  explicit ShelfPanel(Document& document, QWidget* parent = nullptr);
  void show_leg(const std::string& leg);
  //! Whether this leg's kind of spring has a shelf at all.
  bool has_shelf() const { return has_shelf_; }
  //! Up to three chosen offers, to be laid beside the leg as it is.
  std::vector<spring::Offer> compared() const;

 signals:
  void compared_changed();

 private:
  void refresh();
  void fit(int row);
  Document& document_;
  std::string leg_ = "main";
  QLabel* note_;
  QTableWidget* table_;
  std::vector<spring::Offer> offers_;
  std::vector<spring::Candidate> ranked_;
  bool has_shelf_ = false;
};

}  // namespace kranich::app
