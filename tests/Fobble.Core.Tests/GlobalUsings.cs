global using CsCheck;
global using Fobble.Core;
global using Shouldly;
global using Xunit;
