// SPDX-License-Identifier: GPL-3.0-or-later
//! The language that the window speaks: catalogues that ship with the program (data/tongues), one for the
//! interface's sentences and the core's alike. Files, entries of the Book and names are never translated.
#pragma once

#include <QString>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/say.h"

namespace kranich::app {

struct Language {
  QString id;    //!< "en", "de"
  QString name;  //!< as its speakers call it
};
const std::vector<Language>& languages();
//! From now on; unknown ones are English. What is shown already stays as it is: build it anew.
void speak(const QString& id);
const Language& spoken();

//! How the core's texts are put into words now.
Tongue tongue(UnitSystem units);
//! One of our own sentences or words: a title, a choice.
QString in_tongue(std::string_view words);
//! A figure as the language writes it.
QString figure(double value, int decimals);
//! A number that has been written with a point.
QString with_decimal_mark(QString number);
//! What was typed, with decimals as the core reads them.
std::string as_typed(const QString& entry);

}  // namespace kranich::app
