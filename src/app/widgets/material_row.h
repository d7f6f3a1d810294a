// SPDX-License-Identifier: GPL-3.0-or-later
//! A text of the design that names a material: chosen from the builder's own and the typical ones.
#pragma once

#include <QComboBox>
#include <QWidget>

#include "app/document/document.h"

namespace kranich::app {

class MaterialRow : public QWidget {
  Q_OBJECT
 public:
  MaterialRow(Document& document, const QString& path, const QString& title, QWidget* parent = nullptr);
  QComboBox* box() { return box_; }

 private:
  QComboBox* box_;
};

}  // namespace kranich::app
