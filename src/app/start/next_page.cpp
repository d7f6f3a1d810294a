// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/start/next_page.h"

#include <QDate>
#include <QDialog>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFrame>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLineEdit>
#include <QScrollArea>
#include <QTableWidget>
#include <cmath>

#include "app/document/journal.h"
#include "app/document/when_seen.h"
#include "app/print/templates.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/model/locate.h"
#include "core/shop/measuring_sheet.h"

namespace kranich::app {
namespace {

QLabel* small(const QString& text, QWidget* parent, double points = 8.5) {
  auto* l = new QLabel(text, parent);
  l->setFont(text_font(points));
  l->setWordWrap(true);
  return l;
}

}  // namespace

NextPage::NextPage(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName("next-page");
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(16, 12, 14, 8);
  all->setSpacing(6);
  auto* top = new QHBoxLayout;
  auto* head = new QLabel(tr("What to measure next"), this);
  head->setFont(text_font(14, true));
  top->addWidget(head, 1);
  again_ = new QPushButton(tr("Guess the rest again …"), this);
  again_->setObjectName("guess-again");
  again_->setToolTip(tr("The same construction with what is known now; changes only what is still a guess"));
  top->addWidget(again_);
  print_ = new QPushButton(tr("Measuring sheet …"), this);
  print_->setObjectName("measuring-sheet");
  print_->setToolTip(tr("The list as PDF with a sketch and blanks, to take to the hangar"));
  top->addWidget(print_);
  all->addLayout(top);
  note_ = small({}, this, 9);
  note_->setObjectName("next-note");
  all->addWidget(note_);
  wait_ = small({}, this);
  wait_->setObjectName("next-wait");
  all->addWidget(wait_);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  auto* inside = new QWidget(scroll);
  auto* column = new QVBoxLayout(inside);
  column->setContentsMargins(0, 0, 6, 0);
  rows_ = new QVBoxLayout;
  rows_->setSpacing(6);
  column->addLayout(rows_);
  done_ = small({}, inside);
  done_->setObjectName("next-done");
  done_->setTextFormat(Qt::RichText);
  column->addWidget(done_);
  column->addStretch(1);
  scroll->setWidget(inside);
  all->addWidget(scroll, 1);
  connect(again_, &QPushButton::clicked, this, &NextPage::guess_again);
  connect(print_, &QPushButton::clicked, this, [this] {
    const QString path =
        QFileDialog::getSaveFileName(this, tr("Measuring sheet"), "measuring-sheet.pdf", tr("PDF (*.pdf)"));
    if (path.isEmpty()) return;
    if (const auto why = write_sheet_to(path))
      emit tell(*why, true);
    else
      emit tell(tr("written to %1").arg(path), false);
  });
  refresh_when_seen(
      this, &document_, [this] { refresh(); }, &Document::tolerances_changed, &Document::changed);
  connect(&document_, &Document::started, this, [this] {
    done_lines_.clear();
    shown_.clear();
  });
  refresh();
}

std::optional<QString> NextPage::write_sheet_to(const QString& path) const {
  const Design& d = document_.design();
  return write_template(
      shop::measuring_sheet(d, list_),
      {d.about.name, d.about.revision, QDate::currentDate().toString(Qt::ISODate).toStdString()}, d.jig.paper,
      path);
}

void NextPage::refresh() {
  const bool guesses = !start::acts_of(document_.design()).empty();
  again_->setVisible(document_.design().begun.started);
  const ToleranceResult* spread = document_.tolerances();
  if (!spread) {
    wait_->setText(document_.tolerance_running()
                       ? tr("working out what hangs on what: %1 %")
                             .arg(static_cast<int>(100 * document_.tolerance_progress()))
                       : QString());
    wait_->setVisible(!wait_->text().isEmpty());
    if (guesses || shown_.empty()) return;
  }
  wait_->hide();
  list_ =
      spread ? start::measure_next(document_.design(), document_.assessment(), *spread) : start::NextList{};
  print_->setEnabled(!list_.acts.empty());
  note_->setText(
      list_.acts.empty()
          ? (guesses ? tr("Nothing that is guessed can change a verdict any more.")
                     : tr("Nothing is guessed here. A new project starts with guesses; a number that is not "
                          "decided yet counts as one."))
          : tr("<b>%1 verdicts</b> hang on guesses. Each line says what it would settle; type what you "
               "measured "
               "where it stands, and the guess is replaced.")
                .arg(list_.open));
  std::vector<std::string> now;
  for (size_t i = 0; i < std::min(most, list_.acts.size()); ++i) now.push_back(list_.acts[i].act.id);
  // What is being typed must not go away under the hand.
  const auto* focus = qobject_cast<QLineEdit*>(focusWidget());
  if (focus && isAncestorOf(focus) && focus->isModified() && !focus->text().isEmpty()) return;
  shown_ = now;
  rebuild();
}

void NextPage::rebuild() {
  clear_layout(rows_);
  for (size_t i = 0; i < shown_.size(); ++i) rows_->addWidget(row_of(i));
  if (list_.acts.size() > shown_.size())
    rows_->addWidget(small(tr("and %1 more that settle less").arg(list_.acts.size() - shown_.size()), this));
  done_->setText(done_lines_.isEmpty()
                     ? QString()
                     : tr("<p><b>Done</b></p>") + "<p>" + done_lines_.join("<br>") + "</p>");
}

QWidget* NextPage::row_of(size_t which) {
  const start::Worth& w = list_.acts[which];
  const UnitSystem units = document_.units();
  auto* frame = new QFrame(this);
  frame->setObjectName(QStringLiteral("act:%1").arg(which));
  frame->setFrameShape(QFrame::StyledPanel);
  auto* all = new QVBoxLayout(frame);
  all->setContentsMargins(10, 6, 10, 7);
  all->setSpacing(3);
  auto* top = new QHBoxLayout;
  auto* title =
      new QLabel(QStringLiteral("%1  %2").arg(which + 1).arg(sentence_of(w.act.what, units)), frame);
  title->setFont(text_font(10.5, true));
  title->setObjectName(QStringLiteral("act-title:%1").arg(which));
  top->addWidget(title);
  auto* tool = small(tr("with %1").arg(text_of(std::string_view(start::words(w.act.tool)))), frame, 9);
  top->addWidget(tool, 1);
  auto* go = new QPushButton(text_of(station_title(w.act.station)), frame);
  go->setFlat(true);
  go->setAccessibleName(tr("Go to %1").arg(go->text()));
  connect(go, &QPushButton::clicked, this, [this, s = w.act.station] { emit go_to(s); });
  top->addWidget(go);
  all->addLayout(top);
  QStringList narrows;
  for (const Text& n : w.narrows) narrows << text_of(n, units).toLower();
  QString says = w.settles == 0   ? QString()
                 : w.settles == 1 ? tr("Settles 1 of %1 open verdicts").arg(list_.open)
                                  : tr("Settles %1 of %2 open verdicts").arg(w.settles).arg(list_.open);
  if (!narrows.isEmpty())
    says += (says.isEmpty() ? tr("Narrows ") : tr(", narrows ")) + narrows.join(QStringLiteral("; "));
  all->addWidget(small(says + ".", frame));
  if (w.act.tool == start::Tool::scales) {
    all->addWidget(scales_entry(frame));
    return frame;
  }
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(8);
  grid->setVerticalSpacing(2);
  const int columns = w.act.paths.size() > 1 ? 2 : 1;
  for (size_t i = 0; i < w.act.paths.size(); ++i) {
    const auto given = given_at(document_.design(), w.act.paths[i]);
    const auto spec = spec_at(document_.design(), w.act.paths[i]);
    if (!given || !spec) continue;
    auto* label = small(text_of(w.act.titles[i]), frame);
    label->setMinimumWidth(220);
    auto* entry = new QLineEdit(frame);
    entry->setObjectName(QStringLiteral("measured:%1").arg(text_of(w.act.paths[i])));
    entry->setAccessibleName(text_of(w.act.titles[i]));
    entry->setFont(figure_font(9));
    entry->setFixedWidth(96);
    entry->setPlaceholderText(document_.say_number(given->si, spec->kind));
    auto* unit =
        small(tr("%1, guessed ± %2")
                  .arg(document_.unit(spec->kind), document_.say_number(given->tolerance, spec->kind)),
              frame, 8);
    unit->setWordWrap(false);
    const int row = static_cast<int>(i) / columns, column = 3 * (static_cast<int>(i) % columns);
    grid->addWidget(label, row, column);
    grid->addWidget(entry, row, column + 1);
    grid->addWidget(unit, row, column + 2);
    connect(entry, &QLineEdit::returnPressed, this,
            [this, act = w.act, i, entry] { take(act, i, entry->text(), entry); });
  }
  grid->setColumnStretch(3 * columns, 1);
  all->addLayout(grid);
  return frame;
}

QWidget* NextPage::scales_entry(QWidget* parent) {
  auto* box = new QWidget(parent);
  auto* line = new QHBoxLayout(box);
  line->setContentsMargins(0, 0, 0, 0);
  const auto add = [&](const QString& name, const QString& label, double expected) {
    line->addWidget(small(label, box));
    auto* entry = new QLineEdit(box);
    entry->setObjectName(name);
    entry->setAccessibleName(label);
    entry->setFont(figure_font(9));
    entry->setFixedWidth(84);
    if (std::isfinite(expected)) entry->setPlaceholderText(document_.say_number(expected, Kind::mass));
    line->addWidget(entry);
    line->addWidget(small(document_.unit(Kind::mass), box, 8));
    return entry;
  };
  std::vector<QLineEdit*> entries;
  for (const auto& scale : start::empty_scales(document_.design()))
    entries.push_back(add(QStringLiteral("scale:%1").arg(entries.size()),
                          text_of(scale.under, document_.units()), scale.expected));
  auto* button = new QPushButton(tr("Take the scales over"), box);
  button->setObjectName("take-scales");
  line->addWidget(button);
  line->addStretch(1);
  connect(button, &QPushButton::clicked, this, [this, entries] {
    std::vector<double> readings;
    for (auto* entry : entries) {
      const auto parsed = parse_quantity(as_typed(entry->text()), Kind::mass, document_.units());
      const auto* got = std::get_if<ParsedQuantity>(&parsed);
      if (!got || got->si < 0) {
        entry->setFocus();
        emit tell(
            tr("%1: what the scale reads, in %2").arg(entry->accessibleName(), document_.unit(Kind::mass)),
            true);
        return;
      }
      readings.push_back(got->si);
    }
    const start::EmptyMass before = start::empty_of(document_.design());
    for (auto* e : entries) e->setModified(false);
    document_.edit(tr("Scales under every wheel"), [&](Design& d) { start::take_scales(d, readings); });
    const start::EmptyMass now = start::empty_of(document_.design());
    note(tr("empty on scales: %1 at %2; guessed %3 at %4")
             .arg(document_.say(now.mass, Kind::mass), document_.say(now.x, Kind::length),
                  document_.say(before.mass, Kind::mass), document_.say(before.x, Kind::length)));
  });
  return box;
}

void NextPage::take(const start::Act& act, size_t which, const QString& typed, QLineEdit* entry) {
  const std::string& path = act.paths[which];
  const auto spec = spec_at(document_.design(), path);
  const auto given = given_at(document_.design(), path);
  if (!spec || !given) return;
  const auto parsed = parse_quantity(as_typed(typed), spec->kind, document_.units());
  const auto* got = std::get_if<ParsedQuantity>(&parsed);
  if (!got) {
    emit tell(text_of(std::get<ParseError>(parsed).message), true);
    return;
  }
  if (const auto why = refusal(got->si, *spec, document_.units())) {
    emit tell(QStringLiteral("%1 %2").arg(text_of(act.titles[which]), text_of(*why)), true);
    return;
  }
  entry->setModified(false);
  std::optional<double> off;
  document_.edit(tr("Measured: %1").arg(text_of(act.titles[which])),
                 [&](Design& d) { off = start::take_measured(d, path, act.tool, got->si); });
  QString words = tr("%1: %2, with %3")
                      .arg(text_of(act.titles[which]), document_.say(got->si, spec->kind),
                           text_of(std::string_view(start::words(act.tool))));
  if (off) words += tr("; the guess was %1 % off").arg(std::lround(100 * std::abs(*off)));
  note(words);
}

void NextPage::note(const QString& words) {
  done_lines_.prepend(QStringLiteral("%1 · %2").arg(document_.journal().today(), html(words)));
  tasks::Entry entry = document_.journal().begun(tasks::Mark::note);
  entry.note = words.toStdString();
  document_.journal().write(entry);
  emit tell(words, false);
  rebuild();
}

void NextPage::guess_again() {
  const auto again = start::guessed_again(document_.design());
  if (!again) return;
  auto* dialog = new QDialog(this);
  dialog->setObjectName("guess-again-dialog");
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->setWindowTitle(tr("Guess the rest again"));
  dialog->resize(720, 520);
  auto* all = new QVBoxLayout(dialog);
  const auto counts = [](const Design& d) {
    Stations quick;
    quick.take_time = false;
    const Assessment a = assess(d, quick);
    int fails = 0, tight = 0, holds = 0;
    for (const Finding* f : worst_of_each(a)) {
      fails += f->verdict == Verdict::fails;
      tight += f->verdict == Verdict::tight;
      holds += f->verdict == Verdict::holds;
    }
    return QObject::tr("%1 fail, %2 tight, %3 hold").arg(fails).arg(tight).arg(holds);
  };
  all->addWidget(small(tr("Nothing that was answered, typed or measured changes. Before: %1. After: %2.")
                           .arg(counts(document_.design()), counts(*again)),
                       dialog, 9));
  auto* table = new QTableWidget(dialog);
  table->setObjectName("guess-again-table");
  table->setAccessibleName(tr("What would change"));
  table->setColumnCount(3);
  table->setHorizontalHeaderLabels({tr("Number"), tr("guessed"), tr("guessed again")});
  table->verticalHeader()->hide();
  table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  for (const NamedGiven& g : all_given(document_.design())) {
    const auto to = given_at(*again, g.path);
    if (!to || std::abs(to->si - g.given.si) <= 1e-9 * std::max(1.0, std::abs(g.given.si))) continue;
    const int row = table->rowCount();
    table->insertRow(row);
    table->setItem(row, 0, new QTableWidgetItem(text_of(g.title())));
    table->setItem(row, 1, new QTableWidgetItem(document_.say(g.given.si, g.spec.kind)));
    table->setItem(row, 2, new QTableWidgetItem(document_.say(to->si, g.spec.kind)));
  }
  table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  all->addWidget(table, 1);
  auto* buttons = new QDialogButtonBox(dialog);
  auto* take = buttons->addButton(tr("Take the new guesses"), QDialogButtonBox::AcceptRole);
  take->setObjectName("guess-again-take");
  take->setEnabled(table->rowCount() > 0);
  buttons->addButton(tr("Leave it"), QDialogButtonBox::RejectRole);
  connect(buttons, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
  connect(buttons, &QDialogButtonBox::accepted, dialog, [this, dialog, design = *again] {
    document_.edit(tr("Guess the rest again"), [&](Design& d) { d = design; });
    dialog->accept();
  });
  all->addWidget(buttons);
  dialog->open();
}

}  // namespace kranich::app
