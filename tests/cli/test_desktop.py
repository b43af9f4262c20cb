"""What is put into a person's desktop: whole, understood by others, and taken out again."""

from __future__ import annotations

import configparser
import shutil
import subprocess
import xml.etree.ElementTree as Tree

import pytest

from oakmeasure import __version__
from oakmeasure.cli import desktop_install
from oakmeasure.cli.inspect import commands_told
from oakmeasure.cli.main import COMMANDS

TOLD = commands_told()


def test_files_are_put_into_the_persons_own_folders_and_taken_out_again(tmp_path):
    (tmp_path / "applications").mkdir()
    (tmp_path / "applications/other.desktop").write_text("mine")
    written = desktop_install.install(TOLD, tmp_path)
    assert {str(each.relative_to(tmp_path)) for each in written} == set(desktop_install.PLACES.values())
    assert desktop_install.install(TOLD, tmp_path) == written  # again does no harm
    assert desktop_install.remove(tmp_path) == written
    left = [each for each in tmp_path.rglob("*") if each.is_file() and "cache" not in each.name]
    assert [each.name for each in left if each.suffix == ".desktop"] == ["other.desktop"]
    assert not (tmp_path / "man").exists()
    assert desktop_install.remove(tmp_path) == []


def test_what_cannot_be_written_leaves_nothing_behind(tmp_path):
    (tmp_path / "mime").write_text("a file where a folder was meant")
    with pytest.raises(OSError, match="mime"):
        desktop_install.install(TOLD, tmp_path)
    assert [each.name for each in tmp_path.rglob("*") if each.is_file()] == ["mime"]


def test_the_launcher_starts_this_installation_with_a_job(tmp_path):
    desktop_install.install(TOLD, tmp_path)
    entry = configparser.ConfigParser(interpolation=None, delimiters=("=",))
    entry.optionxform = str
    entry.read(tmp_path / desktop_install.PLACES["oak-measure.desktop"], encoding="utf-8")
    said = entry["Desktop Entry"]
    program, file = said["Exec"].rsplit(" ", 1)
    assert file == "%f"
    assert subprocess.run([program.strip('"'), "schema"], capture_output=True, check=True).stdout.startswith(b"{")
    kind = Tree.parse(tmp_path / desktop_install.PLACES["oak-measure.xml"]).getroot()[0]
    assert said["MimeType"].rstrip(";") == kind.get("type")
    assert {each.get("pattern") for each in kind} >= {"*.oakjob"}
    if shutil.which("desktop-file-validate"):
        path = str(tmp_path / desktop_install.PLACES["oak-measure.desktop"])
        assert subprocess.run(["desktop-file-validate", path], check=False).returncode == 0


def test_the_man_page_names_every_command_and_the_metadata_this_version(tmp_path):
    desktop_install.install(TOLD, tmp_path)
    page = (tmp_path / desktop_install.PLACES["oak-measure.1"]).read_text("utf-8").replace("\\-", "-")
    for command in COMMANDS:
        assert command == "demo-picture" or f".B {command}\n" in page, command
    meta = Tree.parse(tmp_path / desktop_install.PLACES["oak-measure.metainfo.xml"]).getroot()
    assert meta.find("releases/release").get("version") == __version__
    assert meta.find("launchable").text == "oak-measure.desktop"
    if shutil.which("appstreamcli"):
        path = str(tmp_path / desktop_install.PLACES["oak-measure.metainfo.xml"])
        done = subprocess.run(
            ["appstreamcli", "validate", "--no-net", path], capture_output=True, text=True, check=False
        )
        assert "E:" not in done.stdout, done.stdout
