// SPDX-License-Identifier: GPL-3.0-or-later
//! Chooses what the legs are together: nose wheel, tail wheel, tandem, four mains. What is there already is
//! kept.
#pragma once

#include <QComboBox>
#include <QWidget>

#include "app/document/document.h"

namespace kranich::app {

class LayoutRow : public QWidget {
  Q_OBJECT
 public:
  LayoutRow(Document& document, const QString& title, QWidget* parent = nullptr);

 private:
  Document& document_;
  QComboBox* box_;
};

}  // namespace kranich::app
