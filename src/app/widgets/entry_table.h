// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <QWidget>

namespace kranich::app {

//! Something that shows a list of the design as a table: it can make the cell of one number the current one.
class EntryTable {
 public:
  virtual ~EntryTable() = default;
  //! The table with that cell current, ready to be typed into; null where the path is none of its numbers.
  virtual QWidget* show_entry(const QString& path) = 0;
  //! Whether that number is one of its cells, whatever rows it has now.
  virtual bool owns(const QString& path) { return show_entry(path) != nullptr; }
};

}  // namespace kranich::app
