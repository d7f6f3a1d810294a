// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/demo.h"

#include <QFile>

#include "core/model/moves.h"

namespace kranich::app {

QStringList demo_names() { return {"Dunnock", "Redshank", "Wheatear", "Nightjar", "Pintail"}; }

bool start_demo(Document& document, const QString& name) {
  QFile file(QStringLiteral(":/demo/%1.kranich").arg(name.toLower()));
  if (!file.open(QIODevice::ReadOnly)) return false;
  auto read = read_project(file.readAll().toStdString());
  if (!read.design) return false;
  QFile book(QStringLiteral(":/demo/%1.book.jsonl").arg(name.toLower()));
  const std::string text = book.open(QIODevice::ReadOnly) ? book.readAll().toStdString() : std::string();
  document.start(std::move(*read.design), QString(), ReadOnly::no, text);
  return true;
}

void start_blank(Document& document) {
  Design d;
  d.loadings.emplace_back();
  d.loadings.back().name = "as it stands";
  d.purpose.field = Field::unsaid;  // asked for first: it decides wheel, strut and limits
  arrange(d, Layout::tricycle);
  document.start(std::move(d), QString());
}

}  // namespace kranich::app
