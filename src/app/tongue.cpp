// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/tongue.h"

#include <QCoreApplication>
#include <QFile>
#include <QTranslator>
#include <algorithm>
#include <memory>

#include "core/io/catalogue.h"

namespace kranich::app {
namespace {

//! Qt's sentences looked up where the core's are.
class CatalogueTranslator : public QTranslator {
 public:
  explicit CatalogueTranslator(const Catalogue& catalogue) : catalogue_(catalogue) {}
  bool isEmpty() const override { return false; }
  QString translate(const char*, const char* source, const char*, int) const override {
    const auto found = catalogue_.find(std::string_view(source));
    return found == catalogue_.end() ? QString() : QString::fromStdString(found->second);
  }

 private:
  const Catalogue& catalogue_;
};

struct Speaking {
  Language language = languages().front();
  Catalogue catalogue;
  std::unique_ptr<CatalogueTranslator> translator;
};
Speaking& speaking() {
  static Speaking now;
  return now;
}
bool comma() { return speaking().language.id == "de"; }

}  // namespace

const std::vector<Language>& languages() {
  static const std::vector<Language> list{{"en", "English"}, {"de", "Deutsch"}};
  return list;
}

void speak(const QString& id) {
  Speaking& now = speaking();
  if (now.translator) QCoreApplication::removeTranslator(now.translator.get());
  now.translator.reset();
  now.catalogue.clear();
  const auto known =
      std::find_if(languages().begin(), languages().end(), [&](const Language& l) { return l.id == id; });
  now.language = known == languages().end() ? languages().front() : *known;
  if (now.language.id == languages().front().id) return;
  QFile file(QStringLiteral(":/tongues/%1.po").arg(now.language.id));
  if (!file.open(QIODevice::ReadOnly)) return;
  now.catalogue = std::move(read_catalogue(file.readAll().toStdString()).catalogue);
  now.translator = std::make_unique<CatalogueTranslator>(now.catalogue);
  QCoreApplication::installTranslator(now.translator.get());
}

const Language& spoken() { return speaking().language; }

Tongue tongue(UnitSystem units) {
  const Speaking& now = speaking();
  return {units, now.translator ? &now.catalogue : nullptr, comma() ? ',' : '.'};
}

QString in_tongue(std::string_view words) {
  return QString::fromStdString(in_words(words, tongue(UnitSystem::metric)));
}

QString with_decimal_mark(QString number) {
  if (number == QLatin1String("unknown")) return in_tongue("unknown");
  return QString::fromStdString(with_decimal(number.toStdString(), comma() ? ',' : '.'));
}

QString figure(double value, int decimals) {
  return with_decimal_mark(QString::number(value, 'f', decimals));
}

std::string as_typed(const QString& entry) {
  std::string typed = entry.toStdString();
  if (comma()) std::replace(typed.begin(), typed.end(), ',', '.');
  return typed;
}

}  // namespace kranich::app
