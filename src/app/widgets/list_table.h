// SPDX-License-Identifier: GPL-3.0-or-later
//! A list of the design as a table: cross-sections, low points, loadings, doors, steps. Each cell is one
//! member by its path; it takes the quantity grammar, a text, or one of a choice's words, and refuses the
//! rest with the reason.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>
#include <QWidget>
#include <functional>

#include "app/document/document.h"
#include "app/widgets/entry_table.h"

namespace kranich::app {

//! What a text that is an id refers to: shown and typed by its name.
enum class Refers { nothing, leg, actor };

struct Column {
  QString key;  //!< of the member within one entry of the list, "at/x_m"
  QString title;
  Refers refers = Refers::nothing;
  bool may_be_none = false;  //!< what it refers to may be left empty
};

class ListTable : public QWidget, public EntryTable {
  Q_OBJECT
 public:
  //! The list at a path. `add` appends an entry that needs more than to be empty: a name, an id.
  ListTable(Document& document, QString path, std::vector<Column> columns,
            std::function<void(Design&)> add = {}, QWidget* parent = nullptr);
  //! Words at the head of each row, where an entry's own name does not tell it.
  void head_rows(std::function<QStringList(const Design&)> words);
  QTableWidget* table() { return table_; }
  QString note() const { return note_->text(); }
  QWidget* show_entry(const QString& path) override;
  bool owns(const QString& path) override;
  //! Puts what was copied from a spreadsheet in from the chosen cell on, adding entries as it needs them: one
  //! step to undo, all of it or, with the cell named that is refused, nothing.
  void paste();
  //! What is chosen, as a spreadsheet takes it.
  void copy() const;

 private:
  void refresh();
  void fit_height(int rows);
  void edited(int row, int column);
  //! Puts a text into a cell's member; returns why not.
  QString put(Design& design, int row, int column, const QString& entry) const;
  void refuse(const QString& why);
  QString shown(const std::string& path, Refers refers) const;
  Document& document_;
  QString path_;
  std::vector<Column> columns_;
  std::function<void(Design&)> add_;
  std::function<QStringList(const Design&)> row_words_;
  QTableWidget* table_;
  QLabel* note_;
  bool filling_ = false;
};

//! A table for each of several lists of one kind, under its title: they come and go with the design.
class ListTables : public QWidget {
 public:
  struct Each {
    QString path, title;
    bool operator==(const Each&) const = default;
  };
  ListTables(Document& document, std::function<std::vector<Each>(const Design&)> which,
             std::vector<Column> columns, QWidget* parent = nullptr);

 private:
  void refresh();
  Document& document_;
  std::function<std::vector<Each>(const Design&)> which_;
  std::vector<Column> columns_;
  std::vector<Each> shown_;
};

//! A tick for one flag, an entry for one text.
class FlagRow : public QCheckBox {
  Q_OBJECT
 public:
  FlagRow(Document& document, QString path, const QString& title, QWidget* parent = nullptr);
};
class TextRow : public QWidget {
  Q_OBJECT
 public:
  TextRow(Document& document, QString path, const QString& title, QWidget* parent = nullptr);
};

//! Aircraft and project in one dialog: name, field, outline, wing, propellers, low points, loadings, doors,
//! steps.
QWidget* make_project_dialog(Document& document, QWidget* parent);

}  // namespace kranich::app
